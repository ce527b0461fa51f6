import { RecipesView } from "@/ui/recipes/view";

export default function Page() {
  return <RecipesView />;
}
