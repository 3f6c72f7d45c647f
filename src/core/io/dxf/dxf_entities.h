#pragma once

#include <optional>
#include <string>

#include "core/geometry/elliptic_arc.h"
#include "core/geometry/path.h"
#include "core/io/dxf/dxf_tags.h"

namespace rim::io::dxf {

/// Where the entities of a file belong.
struct DxfPlace {
  bool r12 = false;
  DxfTags::Handle owner = 0;  ///< the model space; says nothing in R12
  std::string layer;          ///< as the file writes it
  double within = 0.001;      ///< how far an ellipse may lie from the curves that it stands for, in the file's unit
};

/// Adds an outline as one entity: a CIRCLE or ELLIPSE where it is one, an LWPOLYLINE (R12: a POLYLINE) with bulges when
/// it is made of lines and arcs, else a SPLINE of degree 3 through all its nodes. An R12 takes no cubics.
void addEntity(DxfTags& tags, const Path& path, const DxfPlace& place);

/// The whole ellipse that a closed path of cubics stands for: as wide and high as that, and no place of it farther off
/// than `within` (> 0), nor than 3e-4 of its longer half axis, by which four cubics leave a circle (geometry/arc.h).
/// None: it is something else.
std::optional<EllipticArc> ellipseOf(const Path& path, double within);

}  // namespace rim::io::dxf
