#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/picture/lettering.h"
#include "core/picture/preparation.h"
#include "core/picture/stroke.h"

namespace rim::picture {

/// What needs work (common practice, no source): light that falls below this share of the brightest, noise above so
/// many grey levels, strokes of fewer px.
inline constexpr double kUnevenShare = 0.8;
inline constexpr double kNoisyLevels = 6;
inline constexpr double kThinPx = 2;

/// What a picture is worth for tracing.
struct Assessment {
  double contrast = 0;   ///< between the means of ink and paper, grey levels
  double edgeWidth = 0;  ///< how many px the border takes from ink to paper; 1 is as sharp as pixels are
  double noise = 0;      ///< standard deviation, grey levels
  double evenness = 1;   ///< darkest by brightest light on the paper, 0..1
  StrokeWidths strokes;
  std::optional<Lettering> smallLetters;  ///< too small to come out well
  bool hasInk = false;
  bool hasGreys = true;  ///< pixels at edges are mixtures of ink and paper, which say where the edge is
};

/// A sentence about a picture, and what would help.
struct Remark {
  std::string sentence;
  std::vector<PreparationStep> help;  ///< empty: only taking another picture helps
};

/// The standard deviation of noise in grey levels, from what a Laplacian leaves, without the edges.
/// Source: J. Immerkaer, "Fast noise variance estimation", Computer Vision and Image
/// Understanding 64 (1996), 300-302.
double noiseLevel(const cv::Mat& grey);

/// Measured on a copy of at most about 4 megapixels; lengths are in px of the whole picture.
Assessment assess(const Picture& picture);

/// One sentence for everything that will matter, the worst first. Check values: strokes of less
/// than 2 px break, contrast below 50 levels and edges wider than 4 px lose detail, light that
/// falls below 0.8 and noise above 6 levels need work, edges without greys are rough, letters below
/// 10 px are blobs (common practice, no source). What is not worth tracing is told with the size that would be enough.
std::vector<Remark> remarksOn(const Picture& picture, const Assessment& assessment);

}  // namespace rim::picture
