#pragma once

#include <ostream>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/mend/find/finding.h"

namespace rim::cli {

/// One line a finding: kind, place, size and what it is; at the end how many there are. Of each kind the first 20.
void printTable(std::ostream& out, const std::vector<mend::Finding>& findings, const Drawing& drawing);

/// "12 outlines, all closed, nothing drawn twice."
std::string cleanText(const Drawing& drawing);

}  // namespace rim::cli
