#include "core/io/dxf/dxf_layers.h"

#include <array>
#include <cctype>
#include <set>

namespace rim::io::dxf {
namespace {

struct Standard {
  int number, red, green, blue;
};

/// DXF reference: 1 red, 2 yellow, 3 green, 4 cyan, 5 blue, 6 magenta, 7 black or white; the greys 8 and 9 as drawing
/// programs commonly show them (from memory).
constexpr std::array kStandard{Standard{1, 255, 0, 0},   Standard{2, 255, 255, 0},   Standard{3, 0, 255, 0},
                               Standard{4, 0, 255, 255}, Standard{5, 0, 0, 255},     Standard{6, 255, 0, 255},
                               Standard{7, 0, 0, 0},     Standard{8, 128, 128, 128}, Standard{9, 192, 192, 192}};

int nearestStandard(const Layer& layer) {
  int best = 7;
  int least = 3 * 255 * 255 + 1;
  for (const Standard& s : kStandard) {
    const int r = layer.red - s.red;
    const int g = layer.green - s.green;
    const int b = layer.blue - s.blue;
    const int off = r * r + g * g + b * b;
    if (off >= least) continue;
    least = off;
    best = s.number;
  }
  return best;
}

bool allowed(unsigned char c, bool r12) {
  if (r12) return c < 128 && (std::isalnum(c) != 0 || c == '$' || c == '-' || c == '_');
  return c >= 0x20 && std::string_view("<>/\\\":;?*|=`,").find(static_cast<char>(c)) == std::string_view::npos;
}

std::string allowedName(const std::string& name, bool r12) {
  std::string text;
  for (const char c : name) {
    if (c == '#' && r12) continue;
    const auto letter = static_cast<unsigned char>(c);
    const bool fine = allowed(letter, r12);
    text += fine ? (r12 ? static_cast<char>(std::toupper(letter)) : c) : '_';
  }
  constexpr std::size_t kLongestR12 = 27;
  constexpr std::size_t kLongest = 200;
  text = text.substr(0, r12 ? kLongestR12 : kLongest);
  return text.empty() ? (r12 ? "LAYER" : "layer") : text;
}

}  // namespace

std::vector<DxfLayer> dxfLayersOf(const Drawing& drawing, bool r12) {
  std::vector<DxfLayer> layers;
  std::set<std::string> used{"0"};
  for (const Layer& layer : drawing.layers) {
    const std::string name = allowedName(layer.name, r12);
    std::string own = name;
    for (int k = 2; !used.insert(own).second; ++k) own = name + "_" + std::to_string(k);
    layers.push_back({own, nearestStandard(layer), layer.red << 16 | layer.green << 8 | layer.blue});
  }
  if (layers.empty()) layers.push_back({"outlines", 7, -1});
  return layers;
}

}  // namespace rim::io::dxf
