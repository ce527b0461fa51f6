import { screen, within } from "@testing-library/react";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { LineInput, USE_NAMES } from "./line-input";

let written = "";
function Line() {
  const [text, setText] = useState("");
  return (
    <LineInput
      {...USE_NAMES}
      label="Line of the use"
      text={text}
      onText={setText}
      onWrite={() => {
        written = text;
      }}
      onEscape={() => setText("")}
    />
  );
}
const shown = async () => {
  const { user } = await inPantry(demo, <Line />);
  const input = screen.getByRole("textbox", { name: "Line of the use" }) as HTMLTextAreaElement;
  const offers = () => within(screen.getByRole("listbox")).getAllByRole("option");
  return { user, input, offers };
};

describe("a use that is typed", () => {
  it("is offered what a clause begins with, behind the colon and behind each comma", async () => {
    const { user, input, offers } = await shown();
    await user.type(input, "Eat: ");
    expect(offers()[0].textContent).toContain("restores");
    await user.keyboard("{Tab}");
    expect(input.value).toBe("Eat: restores");
    await user.type(input, " 12 Vigour, ");
    await user.keyboard("{ArrowDown}{ArrowDown}{Enter}");
    expect(input.value).toBe("Eat: restores 12 Vigour, cooldown");
  });

  it("is offered names of the pantry, and is written by Enter", async () => {
    const { user, input, offers } = await shown();
    await user.type(input, "Eat: restores 12 Vig");
    expect(offers()[0].textContent).toContain("Vigour");
    await user.keyboard("{Tab}{Enter}");
    expect(written).toBe("Eat: restores 12 Vigour");
  });

  it("drops what is offered by a first Escape, and the line by a second", async () => {
    const { user, input } = await shown();
    await user.type(input, "Eat: ");
    await user.keyboard("{Escape}");
    expect(screen.queryByRole("listbox")).toBe(null);
    expect(input.value).toBe("Eat: ");
    await user.keyboard("{Escape}");
    expect(input.value).toBe("");
  });
});
