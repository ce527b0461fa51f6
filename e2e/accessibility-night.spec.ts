import { everyViewIsAccessible } from "./accessibility";

everyViewIsAccessible("night");
