#pragma once

#include <span>
#include <vector>

#include "core/colour/inks.h"
#include "core/geometry/point.h"
#include "core/trace/inks/cracks.h"
#include "core/trace/inks/lone_inks.h"

namespace rim::trace::inks {

/// A place where borders between inks meet.
struct Junction {
  Point place;         ///< upright px; good to about a pixel
  bool fixed = false;  ///< a corner of the picture: the place is exact
  bool bent = false;   ///< a way turns in it, along a lone ink's outline
};

/// One border between two inks, from junction to junction or closed.
struct InkBorder {
  std::vector<Point> points;  ///< measured, without what lies too near to a junction
  std::vector<Point> sides;   ///< the middles of its pixels' sides: rough, but those of two borders never cross
  bool jagged = false;        ///< no mixtures say where it is (trace/contour/roughness.h): `points` go without the jags
  std::uint8_t left = 0;      ///< ink at the left of the way, or kOutside
  std::uint8_t right = 0;
  int start = -1;  ///< index of a junction; -1: closed
  int end = -1;
  Point leaves;   ///< unit direction out of the junction at the start
  Point arrives;  ///< unit direction into the junction at the end
};

/// A border that goes straight through junctions: borders one after the other.
struct Way {
  struct Part {
    std::size_t border = 0;
    bool reversed = false;
  };
  std::vector<Part> parts;
  bool closed = false;
  bool onRim = false;  ///< a side of the picture
};

struct Ways {
  std::vector<Junction> junctions;
  std::vector<InkBorder> borders;
  std::vector<Way> ways;
};

/// An ink that lies beside all of a way.
struct InkBeside {
  std::uint8_t ink = 0;
  bool atLeft = false;
};

std::vector<InkBeside> inksBesideAllOf(const Way& way, const std::vector<InkBorder>& borders);

/// The borders of a picture of inks. Junctions with a border between them that is none
/// (trace/inks/short_borders.h) are one, except near the places `keptApart` (upright
/// px): there every border keeps its own ends, and the sides of no two borders' pixels meet but at a junction. Borders
/// that go over into each other (trace/inks/pair_ends.h) are one way. Borders are measured side by side on all
/// processors. Throws Cancelled.
Ways waysOf(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map, const LoneInks& lone = {},
            std::span<const Point> keptApart = {}, const std::stop_token& stop = {});

}  // namespace rim::trace::inks
