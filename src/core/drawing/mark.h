#pragma once

#include <optional>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim {

/// By what an outline is known again when what it came from was made anew: who it was, where and how large.
struct OutlineMark {
  OutlineId id = OutlineId::None;
  Point middle;     ///< of its box
  Point size;       ///< of its box
  double area = 0;  ///< that it encloses

  friend bool operator==(const OutlineMark&, const OutlineMark&) = default;
};

OutlineMark markOf(const Outline& outline);

/// The same mark where every length is `factor` times as large.
OutlineMark scaled(const OutlineMark& mark, double factor);

/// Where the marked outline stands in a drawing of the same frame: the one with its id, else of those whose box and
/// area differ by less than a quarter of its size the nearest. None: it is gone.
std::optional<std::size_t> placeOf(const Drawing& drawing, const OutlineMark& mark);

}  // namespace rim
