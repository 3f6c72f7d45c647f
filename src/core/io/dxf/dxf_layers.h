#pragma once

#include <string>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim::io::dxf {

/// A layer as DXF names and colours it.
struct DxfLayer {
  std::string name;
  int colour = 7;      ///< colour number 1..9; 7 is black on white and white on black
  int trueColour = 0;  ///< 0xRRGGBB, group code 420
};

/// The layers of a drawing for a file, in order. Names hold only what DXF allows: for R12 letters, digits, $, - and _
/// in capitals, at most 31; else no < > / \ " : ; ? * | = ` , or control characters (DXF reference, symbol table
/// names). No two are the same. The colour number is the nearest of the standard ones.
std::vector<DxfLayer> dxfLayersOf(const Drawing& drawing, bool r12);

}  // namespace rim::io::dxf
