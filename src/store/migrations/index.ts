/** Every migration in order, with an explicit name: file and class names do not survive bundling. */
import { FirstTables } from "./0001-first-tables";
import { DrawsAndUnlocks } from "./0002-draws-and-unlocks";
import { RecordsByPantry } from "./0003-records-by-pantry";
import { DrawColumns } from "./0004-draw-columns";
import { ChangeParts } from "./0005-change-parts";
import { SlotsCooldownsSituations } from "./0006-slots-cooldowns-situations";
import { OwnFieldsAndWhatUsesThem } from "./0007-own-fields-and-what-uses-them";
import { Pictures } from "./0008-pictures";
import { UsesAndTrials } from "./0009-uses-and-trials";
import { AnyWithATag } from "./0010-any-with-a-tag";
import { WaysAndWares } from "./0011-ways-and-wares";
import { Paybacks } from "./0012-paybacks";
import { MakersAndBatches } from "./0013-makers-and-batches";
import { DearWares } from "./0014-dear-wares";
import { TradeAndSplits } from "./0015-trade-and-splits";
import { ResidueAndOrder } from "./0016-residue-and-order";
import { TimeAndKits } from "./0017-time-and-kits";
import { SalvageByWorth } from "./0018-salvage-by-worth";
import { SlotsOfABag } from "./0019-slots-of-a-bag";
import { UniqueFields } from "./0020-unique-fields";
import { FindingsDecided } from "./0021-findings-decided";
import { Scenarios } from "./0022-scenarios";

export const MIGRATIONS = [
  { name: "0001-first-tables", class: FirstTables },
  { name: "0002-draws-and-unlocks", class: DrawsAndUnlocks },
  { name: "0003-records-by-pantry", class: RecordsByPantry },
  { name: "0004-draw-columns", class: DrawColumns },
  { name: "0005-change-parts", class: ChangeParts },
  { name: "0006-slots-cooldowns-situations", class: SlotsCooldownsSituations },
  { name: "0007-own-fields-and-what-uses-them", class: OwnFieldsAndWhatUsesThem },
  { name: "0008-pictures", class: Pictures },
  { name: "0009-uses-and-trials", class: UsesAndTrials },
  { name: "0010-any-with-a-tag", class: AnyWithATag },
  { name: "0011-ways-and-wares", class: WaysAndWares },
  { name: "0012-paybacks", class: Paybacks },
  { name: "0013-makers-and-batches", class: MakersAndBatches },
  { name: "0014-dear-wares", class: DearWares },
  { name: "0015-trade-and-splits", class: TradeAndSplits },
  { name: "0016-residue-and-order", class: ResidueAndOrder },
  { name: "0017-time-and-kits", class: TimeAndKits },
  { name: "0018-salvage-by-worth", class: SalvageByWorth },
  { name: "0019-slots-of-a-bag", class: SlotsOfABag },
  { name: "0020-unique-fields", class: UniqueFields },
  { name: "0021-findings-decided", class: FindingsDecided },
  { name: "0022-scenarios", class: Scenarios },
];
