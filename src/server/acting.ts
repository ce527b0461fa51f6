/** Who is acting. Today a name chosen in the interface; accounts and roles will answer here. */

export interface Actor {
  readonly name: string;
}

export function actingFrom(headers: Headers): Actor {
  const given = decoded(headers.get("x-salty-author") ?? "").trim().slice(0, 80);
  return { name: given || "Somebody" };
}

/** A name that was not encoded is taken as it came. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
