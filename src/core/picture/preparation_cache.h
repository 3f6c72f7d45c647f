#pragma once

#include "core/picture/preparation.h"

namespace rim::picture {

/// Remembers the picture after every step of the last list it was asked for, so that a change to
/// one step only costs that step and those after it. For one thread.
class PreparationCache {
 public:
  /// The most pixels that are remembered over all steps; past it the later steps are worked
  /// out anew each time.
  static constexpr std::size_t kMostPixelsKept = 250'000'000;

  /// The same as prepared() for the whole list.
  Picture prepared(const Picture& original, const std::vector<PreparationStep>& steps,
                   const std::stop_token& stop = {});

 private:
  struct Done {
    PreparationStep step;
    Picture after;
  };
  void keep(const PreparationStep& step, const Picture& after);

  PictureId original_ = PictureId::None;
  std::vector<Done> done_;
  std::size_t pixels_ = 0;
};

}  // namespace rim::picture
