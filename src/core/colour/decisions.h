#pragma once

#include <stop_token>
#include <string>
#include <variant>
#include <vector>

#include "core/colour/inks.h"
#include "core/picture/picture.h"

namespace rim::colour {

/// One ink becomes another.
struct MergeInks {
  std::size_t from = 0;
  std::size_t into = 0;

  friend bool operator==(const MergeInks&, const MergeInks&) = default;
};

/// Everything under a stroke becomes the ink that most of it has: inks all over the picture, or only the parts of
/// them that the stroke touches.
struct SweepInks {
  struct Place {
    int x = 0;  ///< picture px, y down
    int y = 0;

    friend bool operator==(const Place&, const Place&) = default;
  };
  std::vector<Place> way;
  int radiusPx = 3;
  bool connected = false;  ///< only what hangs together with the stroke

  friend bool operator==(const SweepInks&, const SweepInks&) = default;
};

/// An ink that holds two things becomes two: the new one, with the next number, is the smaller group of its colours.
struct SplitInk {
  std::size_t ink = 0;

  friend bool operator==(const SplitInk&, const SplitInk&) = default;
};

struct SetInkRole {
  std::size_t ink = 0;
  InkRole role = InkRole::Keep;

  friend bool operator==(const SetInkRole&, const SetInkRole&) = default;
};

/// Another colour to show and to export; which pixels have the ink does not change.
struct RecolourInk {
  std::size_t ink = 0;
  Rgb colour;

  friend bool operator==(const RecolourInk&, const RecolourInk&) = default;
};

struct RenameInk {
  std::size_t ink = 0;
  std::string name;

  friend bool operator==(const RenameInk&, const RenameInk&) = default;
};

using InkDecision = std::variant<MergeInks, SweepInks, SplitInk, SetInkRole, RecolourInk, RenameInk>;

/// A line of the list of decisions; one that is off is left out.
struct InkStep {
  InkDecision what;
  bool on = true;

  friend bool operator==(const InkStep&, const InkStep&) = default;
};

/// A line of the list that is on.
InkStep stepFor(InkDecision what);

/// The inks after all decisions, in order. Decisions about inks that are not there do nothing: those before them
/// may have been switched off. `picture` is what was reduced. Throws Cancelled.
InkMap decided(InkMap map, const picture::Picture& picture, const std::vector<InkStep>& steps,
               const std::stop_token& stop = {});

/// Inks to be dissolved given to those around them; when no others are there the map stays as it is.
InkMap dissolved(const InkMap& map);

}  // namespace rim::colour
