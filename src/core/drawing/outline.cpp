#include "core/drawing/outline.h"

#include <bit>
#include <utility>

namespace rim {
namespace {

/// Stirs a number into a hash: the finalizer of SplitMix64 (G. Steele, D. Lea and C. Flood, "Fast splittable
/// pseudorandom number generators", OOPSLA 2014; constants from memory).
std::uint64_t stirred(std::uint64_t hash, std::uint64_t number) {
  std::uint64_t z = (hash ^ number) + 0x9E3779B97F4A7C15U;
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9U;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBU;
  return z ^ (z >> 31U);
}

std::uint64_t stirred(std::uint64_t hash, double number) { return stirred(hash, std::bit_cast<std::uint64_t>(number)); }

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
