"""Findings for telling others what to do: CSV (RFC 4180), and a page to print."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from html import escape

from defusedcsv import csv

_STYLE = """
body { font: 14px/1.5 system-ui, sans-serif; margin: 32px; color: #111; background: #fff }
h1 { font-size: 20px } h2 { font-size: 16px; margin-top: 28px; border-bottom: 1px solid #999 }
table { border-collapse: collapse; width: 100% } tr { break-inside: avoid }
th, td { text-align: left; vertical-align: top; padding: 4px 14px 4px 0 } th { font-weight: 600 }
tr + tr td { border-top: 1px solid #ccc }
"""


@dataclass(frozen=True, slots=True)
class ReportLine:
    """One finding in words. user_name: empty where it is left out."""

    group: str
    title: str
    user_name: str
    address: str
    kind: str
    evidence: str
    to_do: str


def write_csv(lines: Sequence[ReportLine], *, grouped_by: str, with_user_names: bool) -> bytes:
    """The table with a heading; no field can become a formula in a spreadsheet."""
    text = io.StringIO(newline="")
    rows = csv.writer(text)
    rows.writerow(_heading(grouped_by, with_user_names=with_user_names))
    rows.writerows(_cells(line, with_user_names=with_user_names) for line in lines)
    return text.getvalue().encode("utf-8")


def write_html(
    lines: Sequence[ReportLine], *, grouped_by: str, with_user_names: bool, on: date
) -> bytes:
    """One page without anything from elsewhere, a table for each group."""
    heading = _heading(grouped_by, with_user_names=with_user_names)[1:]
    head = "".join(f"<th scope=col>{escape(name)}" for name in heading)
    parts = [
        '<!doctype html><html lang="en"><meta charset="utf-8"><title>What to do</title>'
        f"<style>{_STYLE}</style><h1>What to do, as of {on:%-d %B %Y}</h1>"
    ]
    for group in dict.fromkeys(line.group for line in lines):
        parts.append(f"<h2>{escape(group)}</h2><table><tr>{head}</tr>")
        for line in lines:
            if line.group == group:
                cells = _cells(line, with_user_names=with_user_names)[1:]
                parts.append("<tr>" + "".join(f"<td>{escape(c)}" for c in cells) + "</tr>")
        parts.append("</table>")
    return "".join([*parts, "</html>"]).encode("utf-8")


def _heading(grouped_by: str, *, with_user_names: bool) -> list[str]:
    user_name = ["User name"] if with_user_names else []
    first = grouped_by.capitalize()
    return [first, "Login", *user_name, "Address", "Finding", "Evidence", "What to do"]


def _cells(line: ReportLine, *, with_user_names: bool) -> list[str]:
    user_name = [line.user_name] if with_user_names else []
    return [
        line.group,
        line.title,
        *user_name,
        line.address,
        line.kind,
        line.evidence,
        line.to_do,
    ]
