#pragma once

#include <filesystem>

#include "core/drawing/drawing.h"

namespace rim::io {

/// Files that are looked at or printed, drawn by cairo.
enum class PrintKind { Pdf, Eps, Png };

struct PrintLook {
  bool filled = false;  ///< closed outlines filled even-odd, else all as hairlines of 0.1 mm
  double dpi = 300;     ///< of a PNG
};

/// The largest side of a PNG, px.
inline constexpr int kLargestPrintPx = 20'000;

/// Draws the drawing (mm) on a page as large as its own: PDF and EPS as vector outlines at true size, PNG on white.
/// Layers keep their colours. The file is written beside and renamed. Throws InputError when the page is empty or too
/// large, WriteError when it cannot be written.
void print(const Drawing& drawing, const std::filesystem::path& file, PrintKind kind, const PrintLook& look);

}  // namespace rim::io
