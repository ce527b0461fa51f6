/**
 * What may be asked for in an address, behind its question mark. Every value comes as text; names that are not here are
 * refused, and so is a name that stands twice where one value is meant.
 */
import "reflect-metadata";
import { ArrayMaxSize, IsIn, IsOptional, Matches, ValidateBy, type ValidationOptions } from "class-validator";
import { MOST_IN_BASKET, MOST_WANTED } from "../core/analysis/plan-written";
import { MOST_THINGS } from "../core/chains/chain";
import { textProblem } from "../core/schema/characters";
import type { Id } from "../core/schema/id";
import { NEWEST } from "./use-cases/log";

/** A text that holds nothing but what people write. */
const IsText = (max: number): PropertyDecorator =>
  ValidateBy({
    name: "isText",
    validator: {
      validate: (value) => typeof value === "string" && textProblem(value, { max, name: true }) === null,
      defaultMessage: (at) => `${at?.property}: ${textProblem(String(at?.value), { max, name: true })}`,
    },
  });

/** A whole number as its digits, between two bounds. */
const IsWhole = (least: number, most: number, options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    {
      name: "isWhole",
      validator: {
        validate: (value) =>
          typeof value === "string" &&
          /^(?:0|[1-9]\d{0,9})$/.test(value) &&
          Number(value) >= least &&
          Number(value) <= most,
        defaultMessage: (at) => `${at?.property} must be a whole number from ${least} to ${most}.`,
      },
    },
    options,
  );

/** The id of an item and how many of it. */
const AMOUNT = /^([0-9a-z]{12}):(\d{1,7}(?:\.\d{1,6})?)$/;
const AreAmounts = (): PropertyDecorator =>
  ValidateBy({
    name: "areAmounts",
    validator: {
      validate: (value) =>
        Array.isArray(value) &&
        value.length <= MOST_IN_BASKET &&
        value.every((text: string) => Number(AMOUNT.exec(text)?.[2]) <= MOST_WANTED),
      defaultMessage: (at) =>
        `${at?.property} must be the id of an item and an amount, as in ${at?.property}=${"0".repeat(12)}:20, at most ${MOST_IN_BASKET} times and ${MOST_WANTED} of one.`,
    },
  });
/** What such a text says. */
export const amountIn = (text: string): readonly [id: Id, amount: number] => {
  const [, id, amount] = AMOUNT.exec(text) ?? [];
  return [id as Id, Number(amount)];
};

const IsSwitch = (): PropertyDecorator =>
  IsIn(["0", "1"], { message: ({ property }) => `${property} must be 1 or 0 (the default).` });
const IsMeasure = (): PropertyDecorator => IsIn(["value", "time"], { message: "by must be value or time." });

/** Nothing at all. */
export class NothingAsked {}

/** Icons in whose names all words stand. */
export class IconsAsked {
  @IsOptional()
  @IsText(200)
  q?: string;
}

/** Names of icons, of which those are wanted that no one knows. */
export class StrangeAsked {
  @ArrayMaxSize(50, { message: "The maximum is 50 names per request." })
  @Matches(/^.{1,80}$/, { each: true, message: "name must be the name of an icon, up to 80 characters." })
  name: string[] = [];
}

/** Icons whose drawings are wanted. */
export class IconBodiesAsked {
  @ArrayMaxSize(100, { message: "The maximum is 100 icons per request." })
  @Matches(/^.{1,80}$/, { each: true, message: "name must be the name of an icon, up to 80 characters." })
  name: string[] = [];
}

/** The log: a page of it, the history of one record, or one change. */
export class LogAsked {
  @IsOptional()
  @IsWhole(1, NEWEST)
  revision?: string;
  @IsOptional()
  @Matches(/^[0-9a-z]{12}$/, { message: "of must be the id of a record: twelve characters of 0-9 and a-z." })
  of?: string;
  @IsOptional()
  @IsWhole(1, NEWEST)
  before?: string;
  @IsOptional()
  @IsWhole(1, 200)
  most?: string;
}

/** The revision with which the findings of now are compared. */
export class SinceAsked {
  @IsWhole(0, NEWEST)
  revision!: string;
}

/** Whether the history of a cost is wanted too: going back over changes is work. */
export class TrendAsked {
  @IsOptional()
  @IsSwitch()
  history?: string;
}

/** How a bundle is brought in. */
export class BundleAsked {
  @IsOptional()
  @IsSwitch()
  dry?: string;
  @IsOptional()
  @IsSwitch()
  replace?: string;
  @IsOptional()
  @IsSwitch()
  progress?: string;
  @IsOptional()
  @IsText(200)
  name?: string;
}

/** Recipes by their ids. */
export class RecipesAsked {
  @ArrayMaxSize(100, { message: "The maximum is 100 recipes per request." })
  @Matches(/^[0-9a-z]{12}$/, {
    each: true,
    message: "of must be the id of a recipe: twelve characters of 0-9 and a-z.",
  })
  of: string[] = [];
}

/** The chain of an item; see Ask. */
export class ChainAsked {
  @IsOptional()
  @IsMeasure()
  by?: "value" | "time";
  @ArrayMaxSize(100, { message: "The maximum is 100 alternatives per request." })
  @Matches(/^.{1,60}$/, { each: true, message: "way must be the name of an alternative, up to 60 characters." })
  way: string[] = [];
  @IsOptional()
  @IsWhole(0, 20)
  onward?: string;
  @IsOptional()
  @IsWhole(1, MOST_THINGS)
  most?: string;
}

/** A plan; see AskedPlan. */
export class PlanAsked {
  @AreAmounts()
  make: string[] = [];
  @AreAmounts()
  stock: string[] = [];
  @IsOptional()
  @IsMeasure()
  by?: "value" | "time";
  @IsOptional()
  @Matches(/^0\.(?=\d*[1-9])\d{1,6}$/, { message: "confidence must be a number between 0 and 1, such as 0.9." })
  confidence?: string;
}
