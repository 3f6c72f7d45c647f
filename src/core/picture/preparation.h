#pragma once

#include <array>
#include <optional>
#include <stop_token>
#include <string>
#include <variant>
#include <vector>

#include "core/geometry/point.h"
#include "core/picture/picture.h"

namespace rim::picture {

// Things that can be done to a picture before it is traced. Places and lengths are in *picture
// pixels* of the picture as it is at that point of the list: origin at the upper left corner, y
// down, pixel (0, 0) covering the square from (0, 0) to (1, 1).

struct Crop {
  int x = 0, y = 0, width = 0, height = 0;
  friend bool operator==(const Crop&, const Crop&) = default;
};
struct CropToInk {
  int marginPx = 8;  ///< paper left round the ink, >= 0
  friend bool operator==(const CropToInk&, const CropToInk&) = default;
};
struct Turn {
  double degrees = 90;  ///< counter-clockwise; quarter turns are exact
  friend bool operator==(const Turn&, const Turn&) = default;
};
struct Mirror {  ///< left becomes right
  friend bool operator==(const Mirror&, const Mirror&) = default;
};
using Quad = std::array<Point, 4>;  ///< upper left, upper right, lower right, lower left; y down
struct Straighten {
  std::optional<Quad> corners;  ///< none: found in the picture
  double sideRatio = 0;         ///< width by height of the true sheet; 0: estimated from the perspective
  friend bool operator==(const Straighten&, const Straighten&) = default;
};
struct EvenLight {
  friend bool operator==(const EvenLight&, const EvenLight&) = default;
};
struct LiftShadows {
  double reachPx = 150;  ///< ink, dark parts wider than this become hollow, 3..9999
  friend bool operator==(const LiftShadows&, const LiftShadows&) = default;
};
struct Denoise {
  double strength = 1;  ///< 0.2..5; 1 removes what noise is measured
  friend bool operator==(const Denoise&, const Denoise&) = default;
};
struct Thicken {
  double px = 1;  ///< each side of a stroke moves by half of it; negative thins; -50..50
  friend bool operator==(const Thicken&, const Thicken&) = default;
};
struct FillGaps {
  double px = 2;  ///< breaks in the ink up to this wide are closed, 0..50
  friend bool operator==(const FillGaps&, const FillGaps&) = default;
};
struct FillPinholes {
  double areaPx2 = 20;  ///< holes in the ink with a smaller area are filled
  friend bool operator==(const FillPinholes&, const FillPinholes&) = default;
};
struct DropSpecks {
  double areaPx2 = 20;  ///< ink with a smaller area becomes paper
  friend bool operator==(const DropSpecks&, const DropSpecks&) = default;
};
struct Enlarge {
  double factor = 2;  ///< 1..8
  friend bool operator==(const Enlarge&, const Enlarge&) = default;
};

struct LocalThreshold {
  double sizePx = 51;  ///< a pixel is compared with the mean of a square this wide, 3..999
  double bias = 10;    ///< it is ink when it is darker than the mean by more than this, grey levels
  friend bool operator==(const LocalThreshold&, const LocalThreshold&) = default;
};
struct SmoothEdges {
  double px = 1;  ///< jags up to about this large go, 0.3..20
  friend bool operator==(const SmoothEdges&, const SmoothEdges&) = default;
};
/// One sweep of a round brush.
struct BrushStroke {
  std::vector<Point> places;
  double diameterPx = 12;
  bool ink = false;  ///< else paper
  friend bool operator==(const BrushStroke&, const BrushStroke&) = default;
};
struct TouchUp {
  std::vector<BrushStroke> strokes;
  friend bool operator==(const TouchUp&, const TouchUp&) = default;
};
struct ClearFrame {
  Crop frame;
  bool inside = false;  ///< else everything outside the frame becomes paper
  friend bool operator==(const ClearFrame&, const ClearFrame&) = default;
};
struct PickColour {
  Point place;             ///< whose colour is meant
  double tolerance = 20;   ///< CIE76 colour difference, 0..200
  bool connected = false;  ///< only what hangs together with the place
  bool ink = false;        ///< becomes ink; else paper
  bool rest = false;       ///< and all that is not meant becomes the other
  friend bool operator==(const PickColour&, const PickColour&) = default;
};

using Preparation =
    std::variant<Crop, CropToInk, Turn, Mirror, Straighten, EvenLight, Denoise, Thicken, FillGaps, FillPinholes,
                 DropSpecks, Enlarge, LocalThreshold, SmoothEdges, TouchUp, ClearFrame, PickColour, LiftShadows>;

/// A line in the list of what was done to a picture.
struct PreparationStep {
  Preparation what;
  bool on = true;
  friend bool operator==(const PreparationStep&, const PreparationStep&) = default;
};

/// Whether a step names places of one picture, so that it makes no sense on another.
bool isHandWork(const Preparation& what);

/// The picture after one thing was done to it. The given picture is not changed.
/// Throws InputError with one sentence when it cannot be done: a crop that leaves the picture,
/// corners that are not convex, no sheet or no ink to be found, a result of more than
/// kMostPixels; and Cancelled when a stop is requested.
Picture prepared(const Picture& picture, const Preparation& what);

/// The picture after all steps that are on, in order.
Picture prepared(const Picture& original, const std::vector<PreparationStep>& steps, std::stop_token stop = {});

}  // namespace rim::picture
