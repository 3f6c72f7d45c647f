#include "core/io/dxf/dxf_units.h"

#include <array>
#include <cmath>
#include <map>

#include "core/geometry/units.h"

namespace rim::io::dxf {
namespace {

struct Rgb {
  int red, green, blue;
};

/// DXF reference: 1 to 7 have names. From memory: 8 and 9 are greys, 10 to 249 are 24 hues of 15 degrees in five
/// brightnesses, full and half strength, 250 to 255 are greys.
Rgb rgbOf(int number) {
  constexpr std::array kNamed{Rgb{0, 0, 0},       Rgb{255, 0, 0},    Rgb{255, 255, 0}, Rgb{0, 255, 0},
                              Rgb{0, 255, 255},   Rgb{0, 0, 255},    Rgb{255, 0, 255}, Rgb{0, 0, 0},
                              Rgb{128, 128, 128}, Rgb{192, 192, 192}};
  if (number < 0 || number > 255) return {0, 0, 0};
  if (number < static_cast<int>(kNamed.size())) return kNamed[static_cast<std::size_t>(number)];
  if (number >= 250) {
    const int grey = 51 + (number - 250) * 40;
    return {grey, grey, grey};
  }
  constexpr std::array kBrightness{1.0, 0.65, 0.5, 0.3, 0.15};
  const double hue = (number / 10 - 1) / 4.0;  // in sixths of a turn
  const double high = 255 * kBrightness[static_cast<std::size_t>(number % 10 / 2)];
  const double low = number % 2 == 0 ? 0 : high / 2;
  const auto part = [&](double shift) {
    const double away = std::abs(std::remainder(hue - shift, 6.0));
    const double share = away <= 1 ? 1 : away >= 2 ? 0 : 2 - away;
    return static_cast<int>(std::lround(low + (high - low) * share));
  };
  return {part(0), part(2), part(4)};
}

}  // namespace

std::optional<double> mmPerDxfUnit(int code) {
  static const std::map<int, double> kUnits{{1, kMmPerInch}, {2, 304.8},   {4, 1},      {5, 10},      {6, 1000},
                                            {7, 1e6},        {8, 25.4e-6}, {9, 0.0254}, {10, 914.4},  {11, 1e-7},
                                            {12, 1e-6},      {13, 1e-3},   {14, 100},   {15, 10'000}, {16, 100'000}};
  const auto found = kUnits.find(code);
  return found == kUnits.end() ? std::nullopt : std::optional(found->second);
}

Layer layerOfColour(const std::string& name, int colour, int trueColour) {
  if (trueColour >= 0) return {name, trueColour >> 16 & 255, trueColour >> 8 & 255, trueColour & 255};
  const Rgb rgb = rgbOf(std::abs(colour));
  return {name, rgb.red, rgb.green, rgb.blue};
}

}  // namespace rim::io::dxf
