#pragma once

#include <filesystem>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/refine/measure/webs.h"

namespace rim::io {

/// What a fresh reading of a file found.
struct Receipt {
  std::string file;
  std::string format;  ///< "DXF 2000", "DXF R12", "SVG"; of others the ending
  std::string unit;    ///< that the file names: "mm", "in", …; "none": it names none
  Counts counts;
  std::size_t doubled = 0;   ///< lines that are drawn twice
  std::size_t crossing = 0;  ///< places where outlines cross themselves or each other
  Box boxMm;
  struct LayerCount {
    std::string name;
    std::size_t outlines = 0;
  };
  std::vector<LayerCount> layers;
  std::optional<double> deviationMm;  ///< from the drawing that it was compared with; none: with none
  std::size_t freePieces = 0;         ///< islands in holes, which fall out of the sheet
  refine::ThinPlaces thin;
  std::vector<std::string> remarks;  ///< sentences: what is wrong, or differs
  bool clean = false;
};

/// The receipt of an SVG or DXF, read as a stranger would, compared with a drawing (mm) when there is one. Clean: there
/// are outlines, none is open that is not meant to be, drawn twice or crossing, and nothing differs. Throws InputError
/// when the file cannot be read, and Cancelled.
Receipt receiptOf(const std::filesystem::path& file, const Drawing* against = nullptr,
                  const std::stop_token& stop = {});

/// The receipt as one JSON object (docs/guide).
std::string receiptJson(const Receipt& receipt);

/// The same for people: a line for each thing.
std::string receiptText(const Receipt& receipt);

/// The largest distance of one drawing from the other, either way, mm; looked at about every `stepMm` and at all nodes.
/// Infinite when one is empty and the other is not.
double deviationBetween(const Drawing& a, const Drawing& b, double stepMm);

}  // namespace rim::io
