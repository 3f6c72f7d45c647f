#include "core/io/dxf/dxf_blocks.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <numbers>
#include <set>

#include "core/geometry/affine.h"
#include "core/io/common/line_fault.h"
#include "core/io/common/reading.h"
#include "core/io/dxf/dxf_text.h"

namespace rim::io::dxf {
namespace {

/// Unfolds blocks into one drawing.
class Unfolder {
 public:
  Unfolder(const Contents& contents, double tolerance, Drawing& drawing)
      : contents_(contents), tolerance_(tolerance), drawing_(drawing) {}

  void unfold(const Block& block, const Affine& map, const std::string& layer) {
    for (const DxfOutline& outline : block.outlines) add(outline, map, layer);
    for (const Insert& insert : block.inserts) unfold(insert, map, layer);
  }
  std::size_t hidden() const { return hidden_; }

 private:
  static constexpr std::size_t kDeepest = 500;

  [[noreturn]] static void failFarAway() {
    throw InputError("a block or a unit puts outlines too far away for a drawing, or makes them too small.");
  }

  static bool isFinite(const Affine& m) {
    return std::isfinite(m.a) && std::isfinite(m.b) && std::isfinite(m.c) && std::isfinite(m.d) && std::isfinite(m.e) &&
           std::isfinite(m.f);
  }

  static const std::string& layerIn(const std::string& own, const std::string& outer) {
    // What lies on layer 0 of a block takes the layer that the block was put on.
    return own == "0" && !outer.empty() ? outer : own;
  }

  bool isHidden(const std::string& layer) const {
    const auto found = contents_.layers.find(layer);
    return found != contents_.layers.end() && found->second.hidden;
  }

  void add(const DxfOutline& outline, const Affine& map, const std::string& outer) {
    const std::string& layer = layerIn(outline.layer, outer);
    if (isHidden(layer)) {
      ++hidden_;
      return;
    }
    segments_ += outline.path.segments.size();
    if (segments_ > kMostSegments) throw InputError("the drawing unfolds to more than 5 000 000 segments.");
    drawing_.outlines.emplace_back(transformed(outline.path, map, tolerance_), indexOf(layer));
    const Box box = boxOf(drawing_.outlines.back().path());
    const double farthest = std::max({-box.low.x, -box.low.y, box.high.x, box.high.y});
    if (box.empty() || !(farthest <= kFarthestMm)) failFarAway();
  }

  std::size_t indexOf(const std::string& layer) {
    const auto [at, fresh] = indices_.try_emplace(layer, drawing_.layers.size());
    if (fresh) {
      const auto known = contents_.layers.find(layer);
      drawing_.layers.push_back(known != contents_.layers.end() ? known->second.look
                                                                : Layer{withDxfLetters(layer), 0, 0, 0});
    }
    return at->second;
  }

  void unfold(const Insert& insert, const Affine& outer, const std::string& outerLayer) {
    const std::string& layer = layerIn(insert.layer, outerLayer);
    const auto block = contents_.blocks.find(insert.block);
    if (block == contents_.blocks.end()) failAt(insert.line, "the block \"" + insert.block + "\" does not exist");
    if (!open_.insert(insert.block).second)
      failAt(insert.line, "the block \"" + insert.block + "\" lies within itself");
    if (open_.size() > kDeepest) failAt(insert.line, "blocks are nested more than 500 deep");
    const Affine over = insert.turnedOver ? scale(-1, 1) : Affine{};
    const Affine turn = rotation(insert.degrees * std::numbers::pi / 180);
    for (int row = 0; row < std::max(1, insert.rows); ++row) {
      for (int column = 0; column < std::max(1, insert.columns); ++column) {
        if (++copies_ > kMostSegments) throw InputError("the drawing holds more than 5 000 000 copies of blocks.");
        const Affine map = outer * over * shift(insert.at) * turn *
                           shift({column * insert.columnStep, row * insert.rowStep}) *
                           scale(insert.scaleX, insert.scaleY) * shift(-block->second.base);
        if (!isFinite(map)) failFarAway();
        unfold(block->second, map, layer);
      }
    }
    open_.erase(insert.block);
  }

  const Contents& contents_;
  double tolerance_;
  Drawing& drawing_;
  std::map<std::string, std::size_t, WithoutCase> indices_;
  std::set<std::string, WithoutCase> open_;  // blocks being unfolded: as deep as blocks are nested
  std::size_t segments_ = 0;
  std::size_t copies_ = 0;
  std::size_t hidden_ = 0;
};

}  // namespace

bool WithoutCase::operator()(const std::string& a, const std::string& b) const {
  const auto lower = [](char x, char y) {
    return std::toupper(static_cast<unsigned char>(x)) < std::toupper(static_cast<unsigned char>(y));
  };
  return std::lexicographical_compare(a.begin(), a.end(), b.begin(), b.end(), lower);
}

std::size_t unfold(const Contents& contents, double mmPerUnit, double toleranceMm, Drawing& drawing) {
  Unfolder unfolder(contents, toleranceMm, drawing);
  unfolder.unfold(contents.model, scale(mmPerUnit, mmPerUnit), {});
  return unfolder.hidden();
}

}  // namespace rim::io::dxf
