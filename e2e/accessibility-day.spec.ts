import { everyViewIsAccessible } from "./accessibility";

everyViewIsAccessible("day");
