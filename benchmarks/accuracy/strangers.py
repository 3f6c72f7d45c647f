#!/usr/bin/python3
"""Our DXF files in the hands of general-purpose readers of the npm registry, run under Node.

    benchmarks/accuracy/strangers.py build/release/bin/snugrim-cli

Needs npm and a network the first time (kept in the user's cache). Every demo drawing goes into every form of DXF; each
reader says how many outlines it finds. What readers of Debian say is tested in tests/outside.
"""
import json
import os
import pathlib
import subprocess
import sys
import tempfile

READERS = ["dxf-parser@1.1.2", "dxf@5.3.1", "@jscad/dxf-deserializer@2.3.30", "@mlightcad/libdxfrw-web@0.1.0"]
DEMOS = {"badge.jpg": ["--colours", "auto"], "weather-vane.png": [], "swallow.jpg": ["--method", "centreline"], "window-card.png": []}
FORMS = {"2000, arcs": [], "2000, splines": ["--curves", "beziers"], "2000, lines": ["--curves", "lines"], "R12, arcs": ["--dxf", "r12"],
         "R12, lines, inches": ["--dxf", "r12", "--curves", "lines", "--units", "in"]}

NODE = r"""
import fs from 'fs';
import {createRequire} from 'module';
const base = process.argv[2], require = createRequire(base + '/package.json');
const quiet = console.log;
console.log = () => {};
const Parser = require('dxf-parser').default || require('dxf-parser');
const {Helper} = require('dxf');
const {deserialize} = require('@jscad/dxf-deserializer');
const lib = await (await import(base + '/node_modules/@mlightcad/libdxfrw-web/dist/libdxfrw.js')).default({print: () => {}, printErr: () => {}});
const ways = {
  'dxf-parser': t => new Parser().parseSync(t).entities.length,
  'dxf': t => new Helper(t).parsed.entities.length,
  '@jscad/dxf-deserializer': t => [].concat(deserialize({output: 'geometry', filename: 'a.dxf'}, t)).length,
  '@mlightcad/libdxfrw-web': t => {
    const handler = new lib.DRW_FileHandler();
    handler.database = new lib.DRW_Database();
    new lib.DRW_DxfRW(t).read(handler, false);
    return handler.database.mBlock.entities.size();
  },
};
const found = {};
for (const file of process.argv.slice(3)) {
  const text = fs.readFileSync(file, 'utf8');
  found[file] = {};
  for (const [name, way] of Object.entries(ways)) {
    try { found[file][name] = way(text); } catch (e) { found[file][name] = String(e).slice(0, 60); }
  }
}
quiet(JSON.stringify(found));
"""


def installed():
    cache = pathlib.Path(os.environ.get("XDG_CACHE_HOME", pathlib.Path.home() / ".cache")) / "snugrim-bench" / "readers"
    cache.mkdir(parents=True, exist_ok=True)
    if not (cache / "node_modules").exists():
        (cache / "package.json").write_text("{}")
        subprocess.run(["npm", "install", "--silent", *READERS], cwd=cache, check=True)
    (cache / "read.mjs").write_text(NODE)
    return cache


def main():
    cli, readers = sys.argv[1], installed()
    demo = pathlib.Path(__file__).resolve().parents[2] / "demo"
    with tempfile.TemporaryDirectory() as folder:
        meant = {}
        for name, options in DEMOS.items():
            for form, how in FORMS.items():
                file, report = f"{folder}/{name}-{len(meant)}.dxf", f"{folder}/r.json"
                subprocess.run([cli, "trace", demo / name, "-o", file, "--quiet", "--report", report, *options, *how], check=True)
                meant[file] = (name, form, json.loads(pathlib.Path(report).read_text())["outlines"])
        out = subprocess.run(["node", readers / "read.mjs", readers, *meant], capture_output=True, text=True, check=True)
        found = json.loads(out.stdout.splitlines()[-1])
        for reader in next(iter(found.values())):
            right = [file for file in meant if found[file][reader] == meant[file][2]]
            print(f"{reader}: {len(right)} of {len(meant)} files with all their outlines")
            for file, (name, form, count) in meant.items():
                if found[file][reader] != count:
                    print(f"    {name}, {form}: {found[file][reader]} of {count}")


if __name__ == "__main__":
    main()
