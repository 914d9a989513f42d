import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Input, Select, type InputRef } from "antd";
import { useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { seedTaken, waitingSeed } from "../../shared/loginSeed";
import { makesCodes } from "../../domain/secondFactor";
import { ChangedMeanwhile, isChangedMeanwhile, partedFields } from "../../shared/ChangedMeanwhile";
import { DayField } from "../../shared/DayField";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";
import { useKeys } from "../../shared/useKeys";
import { KnownAlready } from "./KnownAlready";
import { MailboxField } from "./MailboxField";
import { FurtherFields, type FieldDraft } from "./FurtherFields";
import { SecretChoice, type SecretChoiceHandle } from "./SecretChoice";

type Draft = {
  title: string;
  user_name: string;
  address: string;
  notes: string;
  folder: string;
  owner: string;
  tags: string[];
  importance: Schema["Importance"];
  expires_on: string | null;
  resets_by: string | null;
  second_factor: Schema["SecondFactor"];
  driven: boolean;
  driven_at: string[];
};

/** What is kept of a form that is left: its secret fields by id, and a secret of one's own. */
type KeptForm = {
  draft: Draft;
  fields: FieldDraft[];
  values: Record<string, string>;
  own: string | null;
};

const EMPTY: Draft = {
  title: "",
  user_name: "",
  address: "",
  notes: "",
  folder: "",
  owner: "",
  tags: [],
  importance: "normal",
  expires_on: null,
  resets_by: null,
  second_factor: "none",
  driven: false,
  driven_at: [],
};

/** Adding and editing: one form, one save. */
export default function LoginFormPage() {
  const { loginId } = useParams();
  const [anew, setAnew] = useState(0);
  const known = useQuery({ ...queries.login(loginId ?? ""), enabled: Boolean(loginId) });
  if (loginId && known.error)
    return (
      <main className="page">
        <ProblemNote problem={known.error} />
      </main>
    );
  if (loginId && !known.data) return <main className="page" aria-busy="true" />;
  return (
    <LoginForm
      key={`${loginId ?? "new"} ${anew}`}
      login={known.data ?? null}
      onAnew={() => setAnew(anew + 1)}
    />
  );
}

type FormProps = { login: Schema["LoginSheet"] | null; onAnew: () => void };

function LoginForm({ login: opened, onAnew }: FormProps) {
  // What was seen when the form was opened, whatever is asked anew meanwhile.
  const [login, setLogin] = useState(opened);
  const [saved, setSaved] = useState<Schema["LoginSheet"] | null>(null);
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const habits = useQuery(queries.habits()).data;
  const [draft, setDraft] = useState<Draft>(() =>
    login ? { ...EMPTY, ...pickDraft(login) } : { ...EMPTY, ...waitingSeed() },
  );
  const [fields, setFields] = useState<FieldDraft[]>(() => (login ? fieldsOf(login) : []));
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const secret = useRef<SecretChoiceHandle>(null);
  const values = useRef(new Map<number, HTMLInputElement>());
  const codeKey = useRef<HTMLInputElement>(null);
  const title = useRef<InputRef>(null);
  const back = login ? `/logins/${login.login_id}` : "/logins";
  const kept = useFormDraft<KeptForm>(
    login ? `login-${login.login_id}` : "login-new",
    () => ({
      draft,
      fields,
      values: Object.fromEntries([...values.current].map(([id, field]) => [id, field.value])),
      own: secret.current?.typed() ?? null,
    }),
    (content) => {
      flushSync(() => {
        setDraft({ ...EMPTY, ...content.draft });
        setFields(content.fields);
      });
      for (const [id, value] of Object.entries(content.values)) {
        const field = values.current.get(Number(id));
        if (field) field.value = value;
      }
      if (content.own !== null) secret.current?.restore(content.own);
    },
    JSON.stringify({ draft, fields }),
  );

  useEffect(() => {
    seedTaken();
    title.current?.focus();
  }, []);
  useKeys({ Escape: () => void navigate(back) });

  const set = <K extends keyof Draft>(key: K, value: Draft[K]) =>
    setDraft((now) => ({ ...now, [key]: value }));
  const text = (key: "title" | "user_name" | "address" | "folder" | "owner") => ({
    value: draft[key],
    onChange: (event: { target: { value: string } }) => set(key, event.target.value),
    autoComplete: "off",
    spellCheck: false,
  });

  const take = (sheet: Schema["LoginSheet"]) => {
    setLogin(sheet);
    setDraft({ ...EMPTY, ...pickDraft(sheet) });
    setFields(fieldsOf(sheet));
    setSaved(null);
  };
  const save = async (revision: string | null) => {
    setBusy(true);
    setProblem(null);
    setSaved(null);
    try {
      const body: Schema["LoginIn"] = {
        ...draft,
        driven_at: draft.driven_at.map((one) => one.trim()).filter(Boolean),
        fields: fields.filter((f) => !f.secret).map(({ name, value }) => ({ name, value })),
        secret_fields: fields
          .filter((f) => f.secret)
          .map((f) => {
            const typed = values.current.get(f.id)?.value ?? "";
            return { name: f.name, value: typed === "" && f.kept ? null : typed };
          }),
        code_key: codeKey.current?.value || null,
        secret: (await secret.current?.chosen()) ?? null,
        revision,
      };
      const sheet = login
        ? await answer(
            client.PUT("/logins/{login_id}", {
              params: { path: { login_id: login.login_id } },
              body,
            }),
          )
        : await answer(client.POST("/logins", { body }));
      void kept.forget();
      void navigate(`/logins/${sheet.login_id}`, { replace: true });
    } catch (error) {
      if (login && isChangedMeanwhile(error)) {
        const params = { path: { login_id: login.login_id } };
        setSaved(await answer(client.GET("/logins/{login_id}", { params })));
      } else setProblem(error);
    } finally {
      setBusy(false);
    }
  };

  return (
    <main className="page at-most-1120">
      <p className="small">
        <Link to={back}>{login ? login.title : "Logins"}</Link>
      </p>
      <h1 className="below-16">{login ? "Edit login" : "New login"}</h1>
      <DraftNote draft={kept} onAnew={onAnew} />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save(login?.revision ?? null);
        }}
        onInput={kept.touched}
        autoComplete="off"
      >
        <div className="two login-form-page-two">
          <div className="stack">
            <label className="field">
              <span>Title</span>
              <Input ref={title} {...text("title")} />
            </label>
            <label className="field">
              <span>User name</span>
              <Input {...text("user_name")} list="user-names" />
            </label>
            <datalist id="user-names">
              {habits?.user_names.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </datalist>
            <label className="field">
              <span>Address</span>
              <Input {...text("address")} placeholder="https://…" inputMode="url" />
            </label>
            {!login && (
              <KnownAlready
                typed={draft}
                onAddress={(address) => set("address", address)}
                onUserName={(name) => set("user_name", name)}
              />
            )}
            <Checkbox
              checked={draft.driven}
              onChange={(event) => set("driven", event.target.checked)}
            >
              New Knot may fill the forms of this site when it is rotated
            </Checkbox>
            {draft.driven && (
              <label className="field">
                <span>Also at these addresses of the same site, one a line</span>
                <Input.TextArea
                  autoSize={{ minRows: 1, maxRows: 4 }}
                  value={draft.driven_at.join("\n")}
                  placeholder="none: only at the address above"
                  autoComplete="off"
                  spellCheck={false}
                  onChange={(event) =>
                    set("driven_at", event.target.value ? event.target.value.split("\n") : [])
                  }
                />
              </label>
            )}
            <SecretChoice
              ref={secret}
              address={draft.address}
              known={[draft.title, draft.user_name]}
              hasSecret={login?.has_secret ?? false}
              looseEndId={params.get("loose_end")}
            />
          </div>
          <div className="stack">
            <div className="row login-form-page-row">
              <label className="field grow">
                <span>Folder</span>
                <Input {...text("folder")} list="folders" />
              </label>
              <datalist id="folders">
                {habits?.folders.map((f) => (
                  <option key={f}>{f}</option>
                ))}
              </datalist>
              <label className="field grow">
                <span>Importance</span>
                <Select
                  aria-label="Importance"
                  value={draft.importance}
                  onChange={(value) => set("importance", value)}
                  options={(["low", "normal", "high", "critical"] as const).map((value) => ({
                    value,
                    label: value,
                  }))}
                />
              </label>
            </div>
            <div className="row login-form-page-row">
              <label className="field grow">
                <span>Who else is in charge (empty: myself)</span>
                <Input {...text("owner")} />
              </label>
              <div className="grow">
                <DayField
                  label="Expires on"
                  value={draft.expires_on ?? ""}
                  onChange={(day) => set("expires_on", day || null)}
                />
              </div>
            </div>
            <MailboxField
              own={login?.login_id ?? null}
              value={draft.resets_by}
              onChange={(value) => set("resets_by", value)}
            />
            <div className="row login-form-page-row">
              <label className="field grow">
                <span>Second factor</span>
                <Select
                  aria-label="Second factor"
                  value={draft.second_factor}
                  onChange={(value) => set("second_factor", value)}
                  options={[
                    { value: "none", label: "none" },
                    { value: "setting_up", label: "its codes are made here, being set up" },
                    { value: "here", label: "its codes are made here" },
                    { value: "elsewhere", label: "kept elsewhere" },
                  ]}
                />
              </label>
              {makesCodes(draft) && (
                <div className="grow">
                  <SecretInput
                    ref={codeKey}
                    label={
                      login && makesCodes(login)
                        ? "Key of its codes (empty: as it is)"
                        : "Key of its codes, or its otpauth address"
                    }
                  />
                </div>
              )}
            </div>
            <label className="field">
              <span>Tags</span>
              <Select
                aria-label="Tags"
                mode="tags"
                open={false}
                suffixIcon={null}
                value={draft.tags}
                onChange={(value: string[]) => set("tags", value)}
                tokenSeparators={[","]}
              />
            </label>
            <label className="field">
              <span>Notes (shown in the sheet: keep secrets in a secret field)</span>
              <Input.TextArea
                rows={3}
                value={draft.notes}
                spellCheck={false}
                autoComplete="off"
                onChange={(event) => set("notes", event.target.value)}
              />
            </label>
            <FurtherFields
              fields={fields}
              onChange={setFields}
              register={(id, element) =>
                element ? values.current.set(id, element) : values.current.delete(id)
              }
            />
          </div>
        </div>
        <div className="stack above-18">
          <ProblemNote problem={problem} />
          {saved && (
            <ChangedMeanwhile
              fields={partedFields(draft, pickDraft(saved))}
              busy={busy}
              onMine={() => void save(saved.revision)}
              onSaved={() => take(saved)}
            />
          )}
          <div className="row">
            <Button type="primary" htmlType="submit" loading={busy}>
              Save
            </Button>
            <Button onClick={() => void navigate(back)}>
              Cancel <kbd>Esc</kbd>
            </Button>
          </div>
        </div>
      </form>
    </main>
  );
}

function pickDraft(login: Schema["LoginSheet"]): Draft {
  const { title, user_name, address, notes, folder, owner, tags, importance } = login;
  const { expires_on, resets_by, second_factor, driven, driven_at } = login;
  return {
    title,
    user_name,
    address,
    notes,
    folder,
    owner,
    tags,
    importance,
    expires_on,
    resets_by,
    second_factor,
    driven,
    driven_at,
  };
}

function fieldsOf(login: Schema["LoginSheet"]): FieldDraft[] {
  const plain = login.fields.map((f) => ({ ...f, secret: false, kept: false }));
  const secret = login.secret_field_names.map((name) => ({
    name,
    value: "",
    secret: true,
    kept: true,
  }));
  return [...plain, ...secret].map((f, id) => ({ id, ...f }));
}
