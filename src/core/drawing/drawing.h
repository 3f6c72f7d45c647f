#pragma once

#include <optional>
#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include "core/drawing/outline.h"
#include "core/geometry/paths.h"

namespace rim {

/// A layer of a drawing: outlines that belong together, as those of one ink.
struct Layer {
  std::string name;                  ///< UTF-8
  int red = 0, green = 0, blue = 0;  ///< 0..255

  friend bool operator==(const Layer&, const Layer&) = default;
};

/// What a drawing's numbers are.
enum class Frame {
  Millimetres,
  Pixels,  ///< of the picture that it was traced from
  Inches,  ///< only in a drawing that is about to be written
};

/// Outlines on a page, y up, the page's lower left corner at the origin. Traced and mended, outer borders run
/// counter-clockwise and holes clockwise; what was read runs as it was drawn (drawing/nested.h tells which is which). A
/// value: paths are shared, so a change of one outline costs one path and the list.
struct Drawing {
  std::vector<Outline> outlines;
  std::vector<Layer> layers;  ///< empty: all outlines are on one, black
  double pageWidth = 0;
  double pageHeight = 0;
  Frame frame = Frame::Millimetres;

  const Path& path(std::size_t i) const { return outlines[i].path(); }
  /// Gives an outline another path; it stays who it is.
  void setPath(std::size_t i, Path path) { outlines[i] = outlines[i].with(std::move(path)); }
};

/// A drawing in mm of new outlines on these layers, each on the one that `layerOf` names; all on the first, or none,
/// when that is empty.
Drawing makeDrawing(std::vector<Path> paths, std::vector<Layer> layers = {},
                    const std::vector<std::size_t>& layerOf = {});

/// Gives an id to every outline that has none. n.
void mintIds(Drawing& drawing);

/// Adds a new outline. Looks through all others; makeDrawing() is for many.
void add(Drawing& drawing, Path path, std::size_t layer = 0);

/// Puts what was made of an outline into a drawing: the first part is still that outline, the others are new ones.
void addParts(Drawing& drawing, Outline outline, std::vector<Path> parts);

/// Those of the outlines that are named, in their order. Layers and page stay.
Drawing onlyOutlines(const Drawing& drawing, const std::set<OutlineId>& ids);

/// The paths of all outlines, in order. By reference: the drawing must outlive them.
Paths pathsOf(const Drawing& drawing);

/// The box round all outlines; empty when there are none.
Box boxOf(const Drawing& drawing);

/// How many of the open outlines are lines that a pen drew, which end where it stopped.
std::size_t openPenLines(const Drawing& drawing);

/// Whether two outlines lie on one layer, as all do where there are no layers.
bool onOneLayer(const Drawing& drawing, std::size_t a, std::size_t b);

/// The outlines of one layer (index) alone, on a drawing that has no other.
Drawing layerAlone(const Drawing& drawing, std::size_t layer);

/// Each layer that has outlines by itself, with its name; one without a name when there are no layers.
std::vector<std::pair<std::string, Drawing>> byLayer(const Drawing& drawing);

/// The same outlines as if no pen had drawn any of them.
Drawing withoutStrokes(Drawing drawing);

/// The same page, frame and layers without any outline.
Drawing emptyLike(const Drawing& drawing);

/// The same outlines with every length times `factor` (> 0), in another frame.
Drawing inFrame(const Drawing& drawing, Frame frame, double factor);

/// The same outlines elsewhere on the same page.
Drawing moved(const Drawing& drawing, Point by);

/// Where each outline stands in the list.
using OutlinePlaces = std::unordered_map<OutlineId, std::size_t>;
OutlinePlaces placesOf(const Drawing& drawing);

/// Where an outline stands in the list; none when it is gone. n.
std::optional<std::size_t> placeOf(const Drawing& drawing, OutlineId id);

/// The outlines of `after` that are new or changed against `before`: by id and shared path, no coordinate is looked at.
std::vector<Outline> changedOutlines(const Drawing& before, const Drawing& after);

}  // namespace rim
