import type { Throws } from "./DiceDialog";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import type { Policy } from "../../domain/policy";
import {
  ANSWER,
  firstList,
  SENTENCE,
  WORDS,
  type SentenceShape,
  type Wish,
  type WishKind,
  type WordsShape,
} from "../../domain/wish";
import { useDraw } from "../../shared/useDraw";
import { NO_SITE } from "./PolicyBench";

const WISHED_LENGTH = 20;

/** Only the choice is remembered: where that fails, the draw stands all the same. */
function rememberList({ language, list_size }: Pick<WordsShape, "language" | "list_size">): void {
  void client.PUT("/draws/list", { body: { language, list_size } }).catch(() => {});
}

/** The bench's state: which site, which kind, its choices, and the draw to them. */
export function useGenerator() {
  const library = useQuery(queries.policies());
  const [site, setSite] = useState(NO_SITE);
  const [policy, setPolicy] = useState<Policy | null>(null);
  const [length, setLength] = useState(WISHED_LENGTH);
  const [kind, setKind] = useState<WishKind>("characters");
  const [changed, setWords] = useState<WordsShape | null>(null);
  const list = useQuery(queries.wordList()).data;
  const words = useMemo<WordsShape>(() => changed ?? { ...WORDS, ...list }, [changed, list]);
  const [reply, setReply] = useState<WordsShape>(ANSWER);
  const [wished, setSentence] = useState<SentenceShape>(SENTENCE);
  const { language } = words;
  const sentence = useMemo(() => ({ ...wished, language }), [wished, language]);
  const [pin, setPin] = useState(6);
  const [kept, setKept] = useState<Set<number>>(new Set());
  const { draw, take, ...drawing } = useDraw();

  const chosen = library.data?.policies.find((p) => p.policy_id === site);
  const base = useMemo(
    () => (chosen?.policy ?? library.data?.default) as Policy | undefined,
    [chosen, library.data],
  );
  const atSite = site !== NO_SITE;

  const wishOf = useCallback(
    (which: WishKind, at: string, bound: Policy | null): Wish | null => {
      const rules = at === NO_SITE ? undefined : (bound ?? undefined);
      switch (which) {
        case "characters":
          return bound && { kind: "characters", length, policy: bound };
        case "words":
          return { kind: "words", shape: words, policy: rules };
        case "answer":
          return { kind: "answer", shape: reply, policy: rules };
        case "sentence":
          return { kind: "sentence", shape: sentence, policy: rules };
        case "pin":
          return { kind: "pin", length: pin, policy_id: at === NO_SITE ? undefined : at };
        case "line":
          return null;
      }
    },
    [length, words, reply, sentence, pin],
  );
  const drawIt = useCallback(
    (wish: Wish | null, passing = false) => {
      setKept(new Set());
      if (wish) void draw(wish, { passing });
    },
    [draw],
  );

  const changePolicy = useCallback(
    (next: Policy, nextLength: number, passing = true) => {
      const held = Math.max(next.min_length, Math.min(next.max_length, nextLength));
      setPolicy(next);
      setLength(held);
      drawIt({ kind: "characters", length: held, policy: next }, passing);
    },
    [drawIt],
  );
  useEffect(() => {
    if (base && policy === null) changePolicy(base, WISHED_LENGTH, false);
  });

  const rules = atSite ? (policy ?? undefined) : undefined;
  return {
    library,
    chosen,
    base,
    site,
    atSite,
    policy,
    length,
    kind,
    words,
    reply,
    sentence,
    pin,
    kept,
    ...drawing,
    changePolicy,
    pick: (id: string) => {
      const found = library.data?.policies.find((p) => p.policy_id === id)?.policy;
      const next = (found ?? library.data?.default) as Policy | undefined;
      setSite(id);
      if (!next) return;
      if (kind === "characters") return changePolicy(next, WISHED_LENGTH, false);
      setPolicy(next);
      drawIt(wishOf(kind, id, next));
    },
    pickKind: (next: WishKind) => {
      setKind(next);
      drawIt(wishOf(next, site, policy));
    },
    changeWords: useCallback(
      (shape: WordsShape) => {
        setWords(shape);
        drawIt({ kind: "words", shape, policy: rules }, true);
        if (shape.language !== words.language || shape.list_size !== words.list_size)
          rememberList(shape);
      },
      [drawIt, rules, words],
    ),
    changeReply: useCallback(
      (shape: WordsShape) => {
        setReply(shape);
        drawIt({ kind: "answer", shape, policy: rules }, true);
      },
      [drawIt, rules],
    ),
    changeSentence: useCallback(
      (shape: SentenceShape) => {
        setSentence(shape);
        drawIt({ kind: "sentence", shape, policy: rules }, true);
        if (shape.language === language) return;
        const list = firstList(shape.language);
        setWords({ ...words, ...list });
        rememberList(list);
      },
      [drawIt, rules, words, language],
    ),
    changePin: useCallback(
      (digits: number) => {
        setPin(digits);
        drawIt(
          { kind: "pin", length: digits, policy_id: site === NO_SITE ? undefined : site },
          true,
        );
      },
      [drawIt, site],
    ),
    again: () => {
      const wish = wishOf(kind, site, policy);
      const shown = drawing.drawn;
      // Words of a draw that is no longer in view, or of another shape, cannot be kept.
      const keep = shown && shown.words.length > kept.size ? [...kept] : [];
      const memorable = kind === "words" || kind === "answer" || kind === "sentence";
      if (wish) void draw(wish, { again: memorable, keep });
    },
    toggleKept: (place: number) =>
      setKept((now) => {
        const next = new Set(now);
        if (!next.delete(place)) next.add(place);
        return next;
      }),
    takeDice: (thrown: Throws) =>
      void take(() => answer(client.POST("/draws/dice", { body: { shape: words, ...thrown } }))),
    takeLine: (line: string) =>
      void take(() =>
        answer(
          client.POST("/draws/line", { body: { line, policy_id: atSite ? site : undefined } }),
        ),
      ),
    takeDraw: (draw_id: string) => {
      setKept(new Set());
      void take(() => answer(client.GET("/draws/{draw_id}", { params: { path: { draw_id } } })));
    },
  };
}
