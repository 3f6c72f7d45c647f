#pragma once

#include <string>

#include "core/geometry/path.h"

namespace rim {

/// What the outlines of a file are made of (`--curves`).
enum class CurveForm {
  Beziers,  ///< lines and cubic curves
  Arcs,     ///< lines and circular arcs
  Lines,    ///< straight lines only
};

/// The same path made of the wanted kinds of segment only.
///
/// Arcs become cubics within `tolerance`, of at most 95 degrees each. Cubics become pairs of arcs that share a tangent
/// (biarcs) within `tolerance`. Chords leave the curve by at most `tolerance`.
/// `tolerance` > 0 is in the path's unit. Nodes of the path stay nodes; between them the box may
/// change by the tolerance, unless geometry/outermost.h put nodes at its sides before.
Path inForm(const Path& path, CurveForm form, double tolerance);

/// The same path with arcs that turn more than a quarter parted into equal ones that do not.
Path inQuarters(const Path& path);

}  // namespace rim
