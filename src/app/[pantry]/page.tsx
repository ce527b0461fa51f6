import { redirect } from "next/navigation";

export default async function Page({ params }: { params: Promise<{ pantry: string }> }) {
  redirect(`/${(await params).pantry}/shelves`);
}
