#include "core/drawing/in_millimetres.h"

#include <utility>

namespace rim {
namespace {

/// Outlines that are known in mm, by id.
class Known {
 public:
  Known(const InMillimetres& known, const Drawing& wanted) : known_(known) {
    // A drawing that was hardly changed has its outlines in the same places; else they are looked up.
    for (std::size_t i = 0; i < wanted.outlines.size() && sameOrder_; ++i)
      sameOrder_ = i < known.own->outlines.size() && known.own->outlines[i].id == wanted.outlines[i].id;
    if (!sameOrder_) places_ = placesOf(*known.own);
  }

  /// The outline in mm that has the same path as the one in this place; null: there is none.
  const Outline* like(const Outline& outline, std::size_t place) const {
    if (!sameOrder_) {
      const auto at = places_.find(outline.id);
      if (at == places_.end()) return nullptr;
      place = at->second;
    }
    return known_.own->outlines[place].sharesPath(outline) ? &known_.mm->outlines[place] : nullptr;
  }

 private:
  const InMillimetres& known_;
  OutlinePlaces places_;
  bool sameOrder_ = true;
};

}  // namespace

Outline scaled(const Outline& outline, double factor) {
  Outline other = factor == 1 ? outline : outline.with(scaled(outline.path(), factor));
  other.stroke = scaled(outline.stroke, factor);
  return other;
}

InMillimetres inMillimetres(std::shared_ptr<const Drawing> own, double mmPerUnit,
                            const std::vector<const InMillimetres*>& known) {
  std::vector<Known> usable;
  for (const InMillimetres* one : known) {
    if (!one->own || one->mmPerUnit != mmPerUnit) continue;
    if (one->own == own) return *one;
    usable.emplace_back(*one, *own);
  }
  auto mm = std::make_shared<Drawing>(emptyLike(*own));
  mm->pageWidth *= mmPerUnit;
  mm->pageHeight *= mmPerUnit;
  mm->frame = Frame::Millimetres;
  mm->outlines.reserve(own->outlines.size());
  for (std::size_t i = 0; i < own->outlines.size(); ++i) {
    const Outline& outline = own->outlines[i];
    const Outline* like = nullptr;
    for (const Known& one : usable) like = like == nullptr ? one.like(outline, i) : like;
    mm->outlines.push_back(like != nullptr ? outline.along(*like) : scaled(outline, mmPerUnit));
    mm->outlines.back().stroke = scaled(outline.stroke, mmPerUnit);
  }
  return {std::move(own), mmPerUnit, std::move(mm)};
}

}  // namespace rim
