#include "core/refine/edit/mostly_under.h"

#include <algorithm>
#include <cmath>

#include "core/refine/combine/areas.h"

namespace rim::refine {
namespace {

double areaOf(const Drawing& drawing) {
  double sum = 0;
  for (const Outline& outline : drawing.outlines) sum += signedArea(outline.path());
  return std::abs(sum);
}

/// What both boxes cover, as a share of what either does.
double inCommon(const Box& a, const Box& b) {
  const double wide = std::min(a.high.x, b.high.x) - std::max(a.low.x, b.low.x);
  const double high = std::min(a.high.y, b.high.y) - std::max(a.low.y, b.low.y);
  if (wide <= 0 || high <= 0) return 0;
  return wide * high / (a.width() * a.height() + b.width() * b.height() - wide * high);
}

Box boxAt(const OutlineMark& mark) { return {mark.middle - mark.size * 0.5, mark.middle + mark.size * 0.5}; }

// Boxes may have less in common than what they hold; so much less is out of the question.
constexpr double kLeastOfBoxes = 0.25;
constexpr double kLeast = 0.5;

}  // namespace

std::optional<std::size_t> mostlyUnder(const Drawing& drawing, const Path& path, const std::stop_token& stop) {
  if (!path.closed) return {};
  const Box box = boxOf(path);
  std::optional<std::size_t> most;
  double share = kLeast;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const Path& other = drawing.path(i);
    if (!other.closed || inCommon(box, boxOf(other)) < kLeastOfBoxes) continue;
    const double both = areaOf(combined(makeDrawing({path}), makeDrawing({other}), AreaRule::Intersect, stop));
    const double either = std::abs(signedArea(path)) + std::abs(signedArea(other)) - both;
    if (!(either > 0) || both / either < share) continue;
    share = both / either;
    most = i;
  }
  return most;
}

std::optional<std::size_t> mostlyUnder(const Drawing& drawing, const OutlineMark& mark) {
  const Box box = boxAt(mark);
  std::optional<std::size_t> most;
  double share = kLeast;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const double area = std::abs(signedArea(drawing.path(i)));
    const double common = inCommon(box, drawing.outlines[i].box());
    if (common < share || std::min(area, mark.area) < kLeast * std::max(area, mark.area)) continue;
    share = common;
    most = i;
  }
  return most;
}

bool isAnythingAt(const Drawing& drawing, const OutlineMark& mark) {
  const Box box = boxAt(mark);
  return std::any_of(drawing.outlines.begin(), drawing.outlines.end(), [&box](const Outline& outline) {
    const bool isWithin = box.contains(outline.box().low) && box.contains(outline.box().high);
    return isWithin || inCommon(box, outline.box()) >= kLeastOfBoxes;
  });
}

}  // namespace rim::refine
