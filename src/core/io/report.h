#pragma once

#include <string>

#include "core/drawing/drawing.h"
#include "core/mend/find/finding.h"
#include "core/mend/repair/mend.h"
#include "core/refine/propose/proposal.h"
#include "core/sketch/profiles.h"

namespace rim::io {

/// The report of the command line (docs/guide/command-line.md) as JSON text: counts of the outlines and the size in mm
/// of the box round them, as the gauge shows it. `source` is the input's name, `seconds` what it took; `changes` are
/// there when it was refined.
std::string reportJson(const Drawing& drawing, const std::string& source, double seconds,
                       const std::vector<mend::Finding>& findings = {},
                       const std::vector<mend::RepairCount>& repairs = {},
                       const std::vector<refine::Change>* changes = nullptr);

/// The report of the command `sketch`: profiles with outer outline, holes, area and, at that thickness, volume; and
/// what cannot be extruded, and why.
std::string sketchJson(const sketch::Sketch& sketch, double thicknessMm);

}  // namespace rim::io
