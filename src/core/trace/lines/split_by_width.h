#pragma once

#include "core/trace/lines/stroke_chains.h"

namespace rim::trace::lines {

/// The same graph with its chains cut where they run from what is `limitPx` wide into what is wider, and stays so for
/// half of that; a place where strokes cross is wider only for less.
StrokeGraph splitByWidth(StrokeGraph graph, double limitPx);

}  // namespace rim::trace::lines
