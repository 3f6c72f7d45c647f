#include "core/io/svg/svg_outlines.h"

#include <numbers>

#include "core/geometry/elliptic_arc.h"
#include "core/io/common/line_fault.h"
#include "core/io/svg/svg_document.h"
#include "core/io/svg/svg_fill.h"

namespace rim::io::svg {
void SvgShape::check(Point p) const {
  if (!(std::abs(p.x) <= kLargestCoordinate) || !(std::abs(p.y) <= kLargestCoordinate)) {
    failAt(line_, "a coordinate is no number, or too large for a drawing (at most 10 million units).");
  }
}

Path& SvgShape::current() {
  if (fresh_) paths_.push_back({at_, {}, false});
  fresh_ = false;
  return paths_.back();
}

void SvgShape::moveTo(Point p) {
  check(p);
  at_ = p;
  fresh_ = true;
}

void SvgShape::lineTo(Point p) {
  check(p);
  current().segments.push_back(Segment::line(p));
  at_ = p;
}

void SvgShape::cubicTo(Point handle1, Point handle2, Point p) {
  for (const Point q : {handle1, handle2, p}) check(q);
  current().segments.push_back(Segment::cubic(handle1, handle2, p));
  at_ = p;
}

void SvgShape::arcTo(Point radii, double rotation, bool large, bool sweep, Point p) {
  check(radii);
  check(p);
  const EllipticArc arc = ellipticArc(at_, radii, rotation * std::numbers::pi / 180, large, sweep, p);
  if (arc.sweep == 0) {
    // SVG 1.1, F.6.2: equal ends mean nothing, a radius of 0 a straight line.
    if (!(p == at_)) lineTo(p);
    return;
  }
  constexpr double kShareOfSize = 1e-6;
  Path path = pathOf(arc, kShareOfSize * std::max(length(arc.major), length(arc.minor)));
  path.segments.back().end = p;
  auto& segments = current().segments;
  segments.insert(segments.end(), path.segments.begin(), path.segments.end());
  at_ = p;
}

void SvgShape::close() {
  if (fresh_) return;
  Path& path = paths_.back();
  // The closing line of a path that ends where it began is nothing; one shorter than a millionth of the drawing's unit
  // is a rounded number.
  constexpr double kRounded = 1e-6;
  if (distance(at_, path.start) <= kRounded) {
    path.segments.back().end = path.start;
  } else {
    path.segments.push_back(Segment::line(path.start));
  }
  path.closed = true;
  at_ = path.start;
  fresh_ = true;
}

void SvgShape::leaveOut(const std::vector<bool>& marked) {
  std::size_t p = 0;
  std::erase_if(paths_, [&](const Path&) { return marked[p++]; });
}

SvgOutlines::Nesting::Nesting(SvgOutlines& outlines, const std::string& id, int line) : outlines_(outlines), id_(id) {
  if (!outlines.open_.insert(id).second) failAt(line, "the element \"" + id + "\" is used within itself.");
}

void SvgOutlines::countElement(int line) {
  if (stop_.stop_requested()) throw Cancelled();
  constexpr std::size_t kMostElements = 1'000'000;
  if (++elements_ > kMostElements) failAt(line, "the drawing unfolds to more than 1 000 000 elements.");
}

void SvgOutlines::leaveOutHidden(SvgShape& shape) {
  const std::vector<bool> hidden = hiddenByFill(shape.paths());
  hidden_ += static_cast<std::size_t>(std::count(hidden.begin(), hidden.end(), true));
  shape.leaveOut(hidden);
}

void SvgOutlines::add(const SvgShape& shape, const Affine& map, std::size_t layer) {
  for (const Path& path : shape.paths()) {
    segments_ += path.segments.size();
    if (segments_ > kMostSegments) failAt(shape.line(), "the drawing unfolds to more than 5 000 000 segments.");
    Path placed = transformed(path, map, tolerancePx_);
    const Box box = boxOf(placed);
    if (!(std::abs(box.low.x) + std::abs(box.low.y) + std::abs(box.high.x) + std::abs(box.high.y) <=
          4 * kLargestCoordinate)) {
      failAt(shape.line(), "a transform puts outlines too far away for a drawing.");
    }
    outlines_.push_back({std::move(placed), layer});
  }
}

std::size_t SvgOutlines::layerNamed(const Layer& layer) {
  layers_.push_back(layer);
  return layers_.size() - 1;
}

ReadResult SvgOutlines::result(const SvgDocument& document, double mmPerPx, const ReadOptions& options) const {
  ReadResult read;
  read.mmPerUnit = mmPerPx;
  read.unitKnown = document.unitKnown || options.mmPerUnit.has_value();
  const Point page = document.pagePx;
  if (!(page.x * mmPerPx <= kFarthestMm) || !(page.y * mmPerPx <= kFarthestMm)) {
    throw InputError("1: the page is too large for a drawing.");
  }
  read.drawing.pageWidth = page.x * mmPerPx;
  read.drawing.pageHeight = page.y * mmPerPx;
  const Affine upright{mmPerPx, 0, 0, -mmPerPx, 0, read.drawing.pageHeight};
  // Layers count only when every outline lies on one.
  const bool layered = !layers_.empty() && std::none_of(outlines_.begin(), outlines_.end(),
                                                        [](const Outline& o) { return o.layer == kNoLayer; });
  for (const Outline& outline : outlines_) {
    read.drawing.outlines.emplace_back(transformed(outline.path, upright, options.toleranceMm),
                                       layered ? outline.layer : 0);
  }
  if (layered) read.drawing.layers = layers_;
  mintIds(read.drawing);
  std::string others;
  for (const auto& [kind, count] : document.others) others += (others.empty() ? "" : ", ") + countOf(count, kind);
  if (!others.empty()) read.notes.push_back("Left out, as these are not outlines: " + others + ".");
  if (hidden_ > 0) {
    read.notes.push_back("Left out, as they lie hidden within a filled shape (fill rule nonzero): " +
                         countOf(hidden_, "outlines") + ".");
  }
  if (document.outsideFiles > 0) {
    read.notes.push_back("Not followed: " + countOf(document.outsideFiles, "references to other files") + ".");
  }
  if (!badValues_.empty()) {
    read.notes.push_back("Values that could not be read: " + std::to_string(badValues_.size()) +
                         ", the first in line " + std::to_string(badValues_.front()) +
                         "; what stands before them was kept.");
  }
  return read;
}

}  // namespace rim::io::svg
