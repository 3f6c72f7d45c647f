#include "core/drawing/outline.h"

#include <utility>

#include "core/geometry/paths.h"
#include "core/stirred.h"

namespace rim {
namespace {

using rim::stirred;

std::uint64_t stirred(std::uint64_t hash, Point p) { return stirred(stirred(hash, p.x), p.y); }

OutlineId idFrom(std::uint64_t hash) { return static_cast<OutlineId>(hash == 0 ? 1 : hash); }

}  // namespace

StrokeWidth scaled(const StrokeWidth& width, double factor) {
  return {width.usual * factor, width.least * factor, width.most * factor};
}

OutlineId idOf(const Path& path, std::size_t layer, std::uint64_t repeat) {
  std::uint64_t hash = stirred(stirred(path.closed ? 1U : 0U, std::uint64_t{layer}), repeat);
  hash = stirred(hash, path.start);
  for (const Segment& s : path.segments) {
    hash = stirred(stirred(hash, static_cast<std::uint64_t>(s.kind)), s.end);
    if (s.kind == SegmentKind::Arc) hash = stirred(hash, s.bulge);
    if (s.kind == SegmentKind::Cubic) hash = stirred(stirred(hash, s.handle1), s.handle2);
  }
  return idFrom(hash);
}

const Box& Outline::box() const {
  std::call_once(held_->asked, [this] { held_->box = boxOf(held_->path); });
  return held_->box;
}

Outline Outline::with(Path path) const {
  Outline other = *this;
  if (path == held_->path) return other;
  other.held_ = std::make_shared<const Held>(std::move(path));
  return other;
}

Outline Outline::along(const Outline& other) const {
  Outline same = *this;
  same.held_ = other.held_;
  return same;
}

Outline Outline::offspring(Path path) {
  Outline other = with(std::move(path));
  other.id = idFrom(stirred(static_cast<std::uint64_t>(id), std::uint64_t{++minted_}));
  other.minted_ = 0;
  return other;
}

bool operator==(const Outline& a, const Outline& b) {
  return a.id == b.id && a.layer == b.layer && a.group == b.group && a.role == b.role && a.stroke == b.stroke &&
         a.minted_ == b.minted_ && (a.held_ == b.held_ || a.path() == b.path());
}

}  // namespace rim
