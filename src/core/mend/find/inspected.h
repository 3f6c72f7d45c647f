#pragma once

#include <cstddef>
#include <memory>
#include <stop_token>
#include <vector>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// The faults of a drawing, and what is known of each outline, so that after a change only that is looked at again on
/// which it bears. A value: copied freely, shared and never changed.
class Inspected {
 public:
  struct State;

  Inspected() = default;
  explicit Inspected(std::shared_ptr<const State> state) : state_(std::move(state)) {}

  /// Whether a drawing was inspected at all.
  bool isThere() const { return state_ != nullptr; }
  /// Every fault, in the order of inspect(); none when nothing was inspected.
  const std::vector<Finding>& findings() const;
  /// How many outlines were looked at for it.
  std::size_t lookedAt() const;
  const State* state() const { return state_.get(); }

 private:
  std::shared_ptr<const State> state_;
};

/// Inspects a drawing, of which a former state may be known: an outline that shares its path with one of the same id is
/// the same. Finds just what inspect() finds. Where the change bears on many outlines, the settings differ, or the
/// outlines stand in another order, all are looked at. Throws Cancelled when a stop is requested.
Inspected inspected(const Drawing& drawing, const MendSettings& settings, const Inspected& before = {},
                    const std::stop_token& stop = {});

}  // namespace rim::mend
