#pragma once

#include <opencv2/core.hpp>
#include <utility>
#include <vector>

#include "core/geometry/path.h"
#include "core/trace/contour/coverage.h"

namespace rim::trace::contour {

/// A picture as its outlines would be drawn, beside how much of each pixel its ink covers: what an outline is worth is
/// told by how well both agree. Where things are a few pixels wide this says more than the places of borders.
///
/// The approach is analysis by synthesis; of fitting curves to pixels by their rendered coverage see T.-M. Li, M.
/// Lukac, M. Gharbi and J. Ragan-Kelley, "Differentiable vector graphics rasterization for editing and learning", ACM
/// Transactions on Graphics 39 (2020), 193.
class Rendering {
 public:
  /// Draws closed outlines (upright px) beside the shares of pixels that are wanted.
  Rendering(cv::Mat1f wanted, const std::vector<Path>& outlines);

  /// By how much the sum of squared differences of coverage (1: a whole pixel) changes when an outline that was drawn
  /// is replaced by another one.
  double changeBy(const Path& drawn, const Path& other) const;

  /// The squared differences round another outline in the place of one that was drawn, a px of its length.
  double misfitOf(const Path& drawn, const Path& other) const;

  /// The middles of the pixels (upright px) round another outline in the place of one that was drawn whose coverage
  /// would be off by more than `most`.
  std::vector<Point> amiss(const Path& drawn, const Path& other, double most) const;

  /// How much of the pixels round an outline that was drawn it would have to cover for the greys to agree, all others
  /// as they are; `marginPx` wide round its box.
  Coverage wantedOf(const Path& drawn, int marginPx) const;

  /// By how much (px, positive for more ink) the edges near a place would have to move out so that the greys agree
  /// there; 0 where none were drawn.
  double offAt(Point place) const;

  /// How far the greys are from agreeing along an outline that was drawn: the root mean square, and the most, of the
  /// differences of coverage in the pixels that it passes.
  struct Misfit {
    double usual = 0;
    double most = 0;
  };
  Misfit misfitAlong(const Path& drawn) const;

  /// The usual difference of coverage in the pixels that edges pass, what is far off left out: the median, as a
  /// standard deviation.
  double usualOff() const;

  /// Replaces an outline that was drawn.
  void replace(const Path& drawn, const Path& other);

 private:
  /// The squared differences round both, before and after the one is replaced by the other.
  std::pair<double, double> beforeAndAfter(const Path& drawn, const Path& other) const;
  cv::Mat1f changeOf(const Path& drawn, const Path& other, cv::Rect& where) const;
  void addEdges(const Path& path, float sign);

  cv::Mat1f wanted_;
  cv::Mat1f drawn_;
  cv::Mat1f edges_;  ///< how much edge was drawn in each pixel, px
};

}  // namespace rim::trace::contour
