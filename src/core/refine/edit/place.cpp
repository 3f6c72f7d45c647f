#include "core/refine/edit/place.h"

#include <algorithm>
#include <numbers>

#include "core/error.h"

namespace rim::refine {
namespace {

Point middleOf(const Drawing& drawing) {
  const Box box = boxOf(drawing);
  return box.empty() ? Point{} : lerp(box.low, box.high, 0.5);
}

Path mappedPath(const Path& path, const Affine& map, double toleranceMm) {
  Path made = transformed(path, map, toleranceMm);
  return map.determinant() < 0 && path.closed ? reversed(made) : made;
}

void askForCopies(const Drawing& drawing, double copies) {
  if (copies * static_cast<double>(std::max<std::size_t>(1, drawing.outlines.size())) > kMostCopies)
    throw InputError("that would make more than 100 000 outlines.");
}

void addCopy(Drawing& out, std::vector<Outline>& originals, const Affine& map) {
  constexpr double kExactMm = 1e-6;  // similarities keep arcs and cubics what they are; nothing is approximated
  for (Outline& original : originals)
    out.outlines.push_back(original.offspring(mappedPath(original.path(), map, kExactMm)));
}

/// Copies of all outlines by each of the maps, behind the drawing itself.
Drawing withCopies(const Drawing& drawing, const std::vector<Affine>& maps) {
  std::vector<Outline> originals = drawing.outlines;
  Drawing copies = emptyLike(drawing);
  for (const Affine& map : maps) addCopy(copies, originals, map);
  Drawing out = drawing;
  out.outlines = std::move(originals);
  out.outlines.insert(out.outlines.end(), copies.outlines.begin(), copies.outlines.end());
  return out;
}

}  // namespace

Point pointOf(const Box& box, Hold hold) {
  const auto number = static_cast<int>(hold);
  constexpr int kColumns = 3;
  return {box.low.x + box.width() * (number % kColumns) / 2, box.low.y + box.height() * (number / kColumns) / 2};
}

Drawing mapped(const Drawing& drawing, const Affine& map, double toleranceMm) {
  Drawing out = drawing;
  for (Outline& outline : out.outlines) {
    outline = outline.with(mappedPath(outline.path(), map, toleranceMm));
    outline.stroke = scaled(outline.stroke, std::sqrt(std::abs(map.determinant())));
  }
  return out;
}

Drawing rotated(const Drawing& drawing, double degrees) { return rotated(drawing, degrees, middleOf(drawing)); }

Drawing rotated(const Drawing& drawing, double degrees, Point centre) {
  return mapped(drawing, about(centre, rotation(degrees * std::numbers::pi / 180)));
}

Drawing mirrored(const Drawing& drawing, bool leftRight) {
  return mapped(drawing, about(middleOf(drawing), leftRight ? scale(-1, 1) : scale(1, -1)));
}

Drawing scaledBy(const Drawing& drawing, double factor) {
  return mapped(drawing, about(middleOf(drawing), scale(factor, factor)));
}

Drawing placed(const Drawing& drawing, Point at, Hold hold) {
  const Box box = boxOf(drawing);
  return box.empty() ? drawing : moved(drawing, at - pointOf(box, hold));
}

Drawing fitted(const Drawing& drawing, double widthMm, double heightMm) {
  const Box box = boxOf(drawing);
  if (box.empty()) return drawing;
  constexpr double kNothing = 1e-12;
  const double across = box.width() > kNothing ? widthMm / box.width() : std::numeric_limits<double>::infinity();
  const double up = box.height() > kNothing ? heightMm / box.height() : std::numeric_limits<double>::infinity();
  const double factor = std::min(across, up);
  return std::isfinite(factor) ? mapped(drawing, about(box.low, scale(factor, factor))) : drawing;
}

Drawing inRows(const Drawing& drawing, int columns, int rows, Point gapsMm) {
  askForCopies(drawing, static_cast<double>(columns) * rows);
  const Box box = boxOf(drawing);
  std::vector<Affine> maps;
  for (int row = 0; row < rows; ++row) {
    for (int column = 0; column < columns; ++column) {
      if (row == 0 && column == 0) continue;
      maps.push_back(shift({column * (box.width() + gapsMm.x), row * (box.height() + gapsMm.y)}));
    }
  }
  return withCopies(drawing, maps);
}

Drawing onCircle(const Drawing& drawing, int count, Point centre) {
  askForCopies(drawing, count);
  std::vector<Affine> maps;
  for (int i = 1; i < count; ++i) maps.push_back(about(centre, rotation(2 * std::numbers::pi * i / count)));
  return withCopies(drawing, maps);
}

}  // namespace rim::refine
