import { eachViewStands } from "./each-view";
import { ITEMS_AND_RECIPES } from "./every-view";

eachViewStands("salty_views_rest", (path) => !ITEMS_AND_RECIPES.test(path));
