import { everyViewIsAccessible } from "./accessibility";
import { ITEMS_AND_RECIPES } from "./every-view";

everyViewIsAccessible("salty_access_rest", (path) => !ITEMS_AND_RECIPES.test(path));
