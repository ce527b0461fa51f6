#!/usr/bin/env node
/** npm run strings: every text of the program by screen, so that someone can read them through. */
import { run } from "./lib/say.mjs";
import { ensureDependencies } from "./lib/setup.mjs";
import { sourceFiles, textsOf } from "./lib/texts.mjs";

const SCREENS = [
  ["Frame: navigation, tideline, search, help", /^src\/(?:ui\/(?:frame|help|kit|pantry|views)|app\/)/],
  ["Setup", /^src\/ui\/(?:setup|forms)/],
  ["Shelves and sheet", /^src\/ui\/(?:shelves|sheet|grid|uses|bulk)/],
  ["Import and export", /^src\/(?:ui\/tables|core\/exchange)/],
  ["Recipes", /^src\/ui\/recipes/],
  ["Chains", /^src\/(?:ui|core)\/chains/],
  ["Checks", /^src\/(?:ui\/checks|core\/check)/],
  ["Costs", /^src\/(?:ui\/costs|core\/analysis)/],
  ["Tasting", /^src\/(?:ui\/tasting|core\/trials)/],
  ["Log", /^src\/(?:ui\/log|core\/history)/],
  ["Labels and help of fields", /^src\/core\/(?:kinds|clauses)/],
  ["Lines, formulas, cells", /^src\/core\/(?:notation|formulas|schema|editing|numbers|catalogue|cards|pictures)/],
  ["Answers of the server", /^src\/(?:server|store)/],
  ["Command line", /^(?:src\/cli|scripts)\//],
  ["Others", /./],
];

run(async () => {
  ensureDependencies();
  const texts = [...sourceFiles("src"), ...sourceFiles("scripts")]
    .filter((file) => !file.startsWith("src/demo/"))
    .flatMap(textsOf);
  const screenOf = ({ file }) => SCREENS.find(([, files]) => files.test(file))[0];
  for (const [screen] of SCREENS) {
    const here = texts.filter((text) => screenOf(text) === screen);
    if (!here.length) continue;
    console.log(`\n# ${screen} (${here.length})`);
    let file = "";
    for (const text of here) {
      if (text.file !== file) console.log(`\n${text.file}`);
      file = text.file;
      console.log(`  ${String(text.line).padStart(4)}  ${text.text.replaceAll("\n", " ")}`);
    }
  }
});
