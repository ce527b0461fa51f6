/** The engine of What-if, beside the page. */
import anyAscii from "any-ascii";
import { transliterateBy } from "@/core/schema/names";
import { type ToWorker, whatIfServer } from "@/core/what-if/serve";

transliterateBy(anyAscii);
const answer = whatIfServer();
addEventListener("message", ({ data }: MessageEvent<ToWorker>) => postMessage(answer(data)));
