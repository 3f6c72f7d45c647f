#pragma once

#include <boost/iterator/indirect_iterator.hpp>
#include <cstddef>
#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// Paths to be looked at, wherever they are kept: each by reference. Must not outlive them.
class Paths {
 public:
  using const_iterator = boost::indirect_iterator<std::vector<const Path*>::const_iterator>;

  Paths() = default;
  /// All of a list; implicit, as a list is what most callers have.
  Paths(const std::vector<Path>& paths) {
    all_.reserve(paths.size());
    for (const Path& path : paths) all_.push_back(&path);
  }

  /// One alone.
  explicit Paths(const Path& path) : all_{&path} {}
  explicit Paths(Path&&) = delete;

  void reserve(std::size_t count) { all_.reserve(count); }
  void push_back(const Path& path) { all_.push_back(&path); }
  void push_back(Path&&) = delete;

  std::size_t size() const { return all_.size(); }
  bool empty() const { return all_.empty(); }
  const Path& operator[](std::size_t i) const { return *all_[i]; }
  const Path& front() const { return *all_.front(); }
  const Path& back() const { return *all_.back(); }
  const_iterator begin() const { return {all_.begin()}; }
  const_iterator end() const { return {all_.end()}; }

  /// Whether the paths are the same, one by one.
  friend bool operator==(const Paths& a, const Paths& b);

 private:
  std::vector<const Path*> all_;
};

/// What the gauge and the report say about outlines.
struct Counts {
  std::size_t outlines = 0;
  std::size_t closed = 0;
  std::size_t open = 0;
  std::size_t nodes = 0;
  std::size_t lines = 0;
  std::size_t arcs = 0;
  std::size_t curves = 0;
};

Counts countsOf(const Paths& paths);

/// The tight box round all paths; empty when there are none.
Box boxOf(const Paths& paths);

/// The summed length of all paths.
double totalLength(const Paths& paths);

}  // namespace rim
