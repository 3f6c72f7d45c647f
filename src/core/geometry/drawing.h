#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "core/geometry/path.h"
#include "core/geometry/units.h"

namespace rim {

/// A layer of a drawing: outlines that belong together, as those of one ink.
struct Layer {
  std::string name;                  ///< UTF-8
  int red = 0, green = 0, blue = 0;  ///< 0..255

  friend bool operator==(const Layer&, const Layer&) = default;
};

/// Outlines on a page. Millimetres (everywhere but in a drawing that is about to be written), y up, the page's lower
/// left corner at the origin. Outer borders run counter-clockwise, holes clockwise.
struct Drawing {
  std::vector<Path> paths;
  std::vector<Layer> layers;         ///< empty: all outlines are on one, black
  std::vector<std::size_t> layerOf;  ///< of each path, when there are layers
  double pageWidth = 0;
  double pageHeight = 0;
  Unit unit = Unit::Millimetre;  ///< of all numbers
};

/// Whether two paths lie on one layer, as all do where there are no layers.
bool onOneLayer(const Drawing& drawing, std::size_t pathA, std::size_t pathB);

/// The same page and layers without any path.
Drawing emptyLike(const Drawing& drawing);

/// Adds a path to a drawing that has the layers of `from`, on the layer that path `i` of that one lies on.
void addLike(Drawing& drawing, Path path, const Drawing& from, std::size_t i);

/// The paths of `after` that `before` does not have. n log n.
std::vector<Path> newPaths(const Drawing& before, const Drawing& after);

/// What the gauge and the report say about a drawing.
struct Counts {
  std::size_t outlines = 0;
  std::size_t closed = 0;
  std::size_t open = 0;
  std::size_t nodes = 0;
  std::size_t lines = 0;
  std::size_t arcs = 0;
  std::size_t curves = 0;
};

Counts countsOf(const std::vector<Path>& paths);

/// The tight box round all paths; empty when there are none.
Box boxOf(const std::vector<Path>& paths);

/// The summed length of all paths.
double totalLength(const std::vector<Path>& paths);

}  // namespace rim
