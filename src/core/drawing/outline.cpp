#include "core/drawing/outline.h"

#include <utility>

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

Outline Outline::with(Path path) const {
  Outline other = *this;
  if (path == *path_) return other;
  other.path_ = std::make_shared<const Path>(std::move(path));
  return other;
}

Outline Outline::offspring(Path path) {
  Outline other = with(std::move(path));
  other.id = idFrom(stirred(static_cast<std::uint64_t>(id), std::uint64_t{++minted_}));
  other.minted_ = 0;
  return other;
}

bool operator==(const Outline& a, const Outline& b) {
  return a.id == b.id && a.layer == b.layer && a.group == b.group && a.role == b.role && a.stroke == b.stroke &&
         a.minted_ == b.minted_ && (a.path_ == b.path_ || *a.path_ == *b.path_);
}

}  // namespace rim
