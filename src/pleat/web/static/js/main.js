// All that the pages do by script. Alpine starts after it: what it is to know is told at alpine:init.
import "./copies.js";
import "./cover.js";
import "./drawers.js";
import "./fan.js";
import "./fields.js";
import "./folding.js";
import "./goods.js";
import "./handle.js";
import "./house.js";
import "./pieces.js";
import "./pile.js";
import "./placed.js";
import "./sewing.js";
import "./start.js";
import "./swaps.js";
import "./thread.js";
import "./turning.js";
