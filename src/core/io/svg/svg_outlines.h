#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/geometry/affine.h"
#include "core/io/common/reading.h"

namespace rim::io::svg {

struct SvgDocument;

/// The paths of one element while its data is being told, in the element's own coordinates.
class SvgShape {
 public:
  explicit SvgShape(int line = 0) : line_(line) {}

  void moveTo(Point p);
  void lineTo(Point p);
  void cubicTo(Point handle1, Point handle2, Point p);
  /// `rotation` in degrees.
  void arcTo(Point radii, double rotation, bool large, bool sweep, Point p);
  void close();

  const std::vector<Path>& paths() const { return paths_; }
  /// Takes out the paths that are marked.
  void leaveOut(const std::vector<bool>& marked);
  int line() const { return line_; }

 private:
  Path& current();
  void check(Point p) const;

  std::vector<Path> paths_;
  Point at_;
  bool fresh_ = true;  // the next segment begins a path at at_
  int line_;
};

/// Gathers the outlines of an SVG, in px, y down.
class SvgOutlines {
 public:
  static constexpr std::size_t kNoLayer = static_cast<std::size_t>(-1);

  explicit SvgOutlines(double tolerancePx, std::stop_token stop = {})
      : tolerancePx_(tolerancePx), stop_(std::move(stop)) {}

  /// Throws InputError when the drawing has unfolded to too much, Cancelled when a stop is requested.
  void countElement(int line);
  /// Takes out what lies hidden in the fill (io/svg/svg_fill.h), and counts it.
  void leaveOutHidden(SvgShape& shape);
  void add(const SvgShape& shape, const Affine& map, std::size_t layer);
  std::size_t layerNamed(const Layer& layer);
  /// Notes that a value could not be read; the first few are told by line.
  void skipBadValue(int line) { badValues_.push_back(line); }

  /// Stands for being within a "use" of an element. Throws InputError when that element is within itself.
  class Nesting {
   public:
    Nesting(SvgOutlines& outlines, const std::string& id, int line);
    ~Nesting() { outlines_.open_.erase(id_); }
    Nesting(const Nesting&) = delete;
    Nesting& operator=(const Nesting&) = delete;

   private:
    SvgOutlines& outlines_;
    std::string id_;
  };

  /// The drawing in mm, y up, on the document's page.
  ReadResult result(const SvgDocument& document, double mmPerPx, const ReadOptions& options) const;

 private:
  struct Outline {
    Path path;
    std::size_t layer;
  };
  double tolerancePx_;
  std::stop_token stop_;
  std::vector<Outline> outlines_;
  std::vector<Layer> layers_;
  std::set<std::string> open_;
  std::vector<int> badValues_;
  std::size_t elements_ = 0;
  std::size_t segments_ = 0;
  std::size_t hidden_ = 0;
};

}  // namespace rim::io::svg
