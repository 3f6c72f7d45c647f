#include "core/colour/inks.h"

#include <algorithm>

#include "core/colour/connected_components.h"
#include "core/error.h"

namespace rim::colour {

std::string hexOf(Rgb colour) {
  constexpr const char* kDigits = "0123456789abcdef";
  std::string text = "#";
  for (const int channel : {colour.r, colour.g, colour.b}) {
    text += kDigits[channel / 16];
    text += kDigits[channel % 16];
  }
  return text;
}

Rgb colourFromHex(const std::string& text) {
  std::string digits = text.starts_with('#') ? text.substr(1) : text;
  if (digits.size() == 3) digits = {digits[0], digits[0], digits[1], digits[1], digits[2], digits[2]};
  const bool hex = std::all_of(digits.begin(), digits.end(), [](unsigned char c) { return std::isxdigit(c) != 0; });
  if (digits.size() != 6 || !hex) throw InputError("\"" + text + "\" is no colour. Write it as #b3202a or #b22.");
  const auto channel = [&digits](std::size_t at) { return std::stoi(digits.substr(at, 2), nullptr, 16); };
  return {channel(0), channel(2), channel(4)};
}

std::string nameOf(const Ink& ink) { return ink.name.empty() ? hexOf(ink.colour) : ink.name; }

std::vector<InkShare> sharesOf(const InkMap& map) {
  std::vector<InkShare> shares(map.inks.size());
  if (!map.labels) return shares;
  for (const Component& part : connectedComponents(*map.labels).parts) {
    if (part.label >= shares.size()) continue;
    shares[part.label].pixels += part.pixels;
    ++shares[part.label].parts;
  }
  for (InkShare& own : shares) own.share = static_cast<double>(own.pixels) / static_cast<double>(map.labels->total());
  return shares;
}

std::vector<LikeInks> likeInks(const std::vector<Ink>& inks, const std::vector<InkShare>& shares, double difference) {
  std::vector<LikeInks> pairs;
  for (std::size_t a = 0; a < inks.size(); ++a) {
    for (std::size_t b = a + 1; b < inks.size(); ++b) {
      if (shares[a].pixels == 0 || shares[b].pixels == 0) continue;
      const double off = differenceOf(labFrom(inks[a].colour), labFrom(inks[b].colour));
      if (off >= difference) continue;
      pairs.push_back(shares[a].pixels >= shares[b].pixels ? LikeInks{a, b, off} : LikeInks{b, a, off});
    }
  }
  std::sort(pairs.begin(), pairs.end(),
            [](const LikeInks& x, const LikeInks& y) { return x.difference < y.difference; });
  return pairs;
}

std::size_t surroundingInk(const cv::Mat& labels) {
  std::array<std::size_t, 256> counts{};
  for (int x = 0; x < labels.cols; ++x) {
    ++counts[labels.at<std::uint8_t>(0, x)];
    ++counts[labels.at<std::uint8_t>(labels.rows - 1, x)];
  }
  for (int y = 0; y < labels.rows; ++y) {
    ++counts[labels.at<std::uint8_t>(y, 0)];
    ++counts[labels.at<std::uint8_t>(y, labels.cols - 1)];
  }
  return static_cast<std::size_t>(std::max_element(counts.begin(), counts.end()) - counts.begin());
}

}  // namespace rim::colour
