import { execFileSync } from 'node:child_process';

/** An annotation as poppler lists it. */
export interface Listed {
  /** From 1. */
  readonly page: number;
  /** Its kind, in poppler's words. */
  readonly kind: string;
  readonly author: string | null;
  readonly contents: string | null;
  readonly name: string | null;
  readonly modified: string | null;
}

const SCRIPT = `
import json, sys, gi
gi.require_version('Poppler', '0.18')
from gi.repository import Poppler
doc = Poppler.Document.new_from_file('file://' + sys.argv[1], None)
found = []
for n in range(doc.get_n_pages()):
    for mapping in doc.get_page(n).get_annot_mapping():
        annot = mapping.annot
        markup = isinstance(annot, Poppler.AnnotMarkup)
        found.append({
            'page': n + 1,
            'kind': annot.get_annot_type().value_nick,
            'author': annot.get_label() if markup else None,
            'contents': annot.get_contents(),
            'name': annot.get_name(),
            'modified': annot.get_modified(),
        })
print(json.dumps(found))
`;

/** All annotations of a file, as poppler's library reads them (through its introspection, from Python). */
export function listedByPoppler(path: string): Listed[] {
  const out = execFileSync('/usr/bin/python3', ['-c', SCRIPT, path]).toString();
  return JSON.parse(out) as Listed[];
}
