#pragma once

#include "core/picture/preparation_cache.h"

namespace rim::picture {

/// The same step for a picture `scale` times as large: its places and lengths grow by that, areas
/// by its square. scale > 0.
Preparation scaledStep(const Preparation& what, double scale);

/// A prepared picture with fewer pixels than the real one, to be shown until that is worked out.
struct Preview {
  Picture picture;
  double scale = 1;  ///< its pixels per pixel of the real one, 0 < scale <= 1
};

/// Works out previews, and remembers what it can for the next one. For one thread.
class PreviewMaker {
 public:
  /// A preview starts from this many px along the longer side: about what a bench shows.
  static constexpr int kLongerSidePx = 1000;

  /// Whether a picture is so large that a preview is worth while.
  static bool isWorthWhile(const Picture& original);

  /// Throws as prepared() does.
  Preview preview(const Picture& original, const std::vector<PreparationStep>& steps, const std::stop_token& stop = {});

 private:
  PictureId original_ = PictureId::None;
  Picture small_;
  PreparationCache cache_;
};

}  // namespace rim::picture
