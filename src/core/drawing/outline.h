#pragma once

#include <cstdint>
#include <memory>
#include <mutex>

#include "core/geometry/path.h"

namespace rim {

/// Names an outline for as long as it lives, through all that is done to it. Two outlines of a job never have one id,
/// not even one after the other, unless they are the very same line.
enum class OutlineId : std::uint64_t { None = 0 };

/// What the machine does along an outline.
enum class OutlineRole { ByLayer, Cut, Engrave, Score, Helper };

/// How wide the stroke of a line that a pen drew is, in the drawing's frame; all 0 of what is no stroke.
struct StrokeWidth {
  double usual = 0;  ///< the median along it
  double least = 0;
  double most = 0;

  friend bool operator==(const StrokeWidth&, const StrokeWidth&) = default;
};

StrokeWidth scaled(const StrokeWidth& width, double factor);

/// An outline of a drawing: who it is, its path, and where it belongs. A value; the path is shared and never changed.
class Outline {
 public:
  OutlineId id = OutlineId::None;
  std::size_t layer = 0;    ///< index into the drawing's layers; 0 where there are none
  std::uint32_t group = 0;  ///< outlines of one number belong together (a compound, a part, a text); 0: to none
  OutlineRole role = OutlineRole::ByLayer;
  StrokeWidth stroke;  ///< of a line that a pen drew; a border has none

  Outline() : Outline(Path{}) {}
  explicit Outline(Path path, std::size_t onLayer = 0)
      : layer(onLayer), held_(std::make_shared<const Held>(std::move(path))) {}

  const Path& path() const { return held_->path; }
  /// The box round it; worked out when it is asked for first, by whichever thread.
  const Box& box() const;
  /// The same outline along another path; where that is no other, the path stays shared.
  Outline with(Path path) const;
  /// The same outline along the path of another one, which they share.
  Outline along(const Outline& other) const;
  /// A new outline, made of this one, that belongs where it does.
  Outline offspring(Path path);
  /// Whether the other holds the very same path, without looking at it.
  bool sharesPath(const Outline& other) const { return held_ == other.held_; }
  /// How many outlines were made of this one; an id is minted from it. For the job file.
  std::uint32_t minted() const { return minted_; }
  void setMinted(std::uint32_t count) { minted_ = count; }

  /// The same outline with the same path, coordinate by coordinate.
  friend bool operator==(const Outline& a, const Outline& b);

 private:
  struct Held {
    explicit Held(Path own) : path(std::move(own)) {}
    const Path path;
    mutable std::once_flag asked;
    mutable Box box;
  };
  std::shared_ptr<const Held> held_;
  std::uint32_t minted_ = 0;
};

/// The id of a new outline along such a path, the `repeat`-th of its like in a drawing: the same line gets the same id
/// whenever and wherever it comes to be, so that what was decided about it holds when it is traced or read again.
OutlineId idOf(const Path& path, std::size_t layer, std::uint64_t repeat = 0);

}  // namespace rim
