import { eachViewStands } from "./each-view";
import { ITEMS_AND_RECIPES } from "./every-view";

eachViewStands("salty_views_items", (path) => ITEMS_AND_RECIPES.test(path));
