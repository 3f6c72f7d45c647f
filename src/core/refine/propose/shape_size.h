#pragma once

#include <optional>

#include "core/geometry/path.h"
#include "core/refine/propose/proposal.h"

/// How large an exact shape is, and the same shape of another size.
namespace rim::refine {

/// The size of a shape along its own two axes, mm.
struct ShapeSize {
  double wide = 0;   ///< along the axis that is nearer to level; the diameter of a circle, or of that through the
                     ///< corners of a polygon
  double high = 0;   ///< square to that
  bool one = false;  ///< both are one number: circles and regular polygons
  friend bool operator==(const ShapeSize&, const ShapeSize&) = default;
};

/// The size of a closed path that is exactly a circle, an ellipse, a rectangle (rounded or not), a regular polygon or a
/// slot, as proposals make them; none for other kinds.
std::optional<ShapeSize> sizeOf(TrueUpKind kind, const Path& exact);

/// That shape of another size about the same middle: the corners of a rounded rectangle keep their radius. Throws
/// InputError when a size is none, or too small for the shape.
Path withSize(TrueUpKind kind, const Path& exact, ShapeSize size);

/// Whether two sizes differ by no more than a tenth, so that both may be meant to be one.
bool nearlyOneSize(const ShapeSize& a, const ShapeSize& b);

}  // namespace rim::refine
