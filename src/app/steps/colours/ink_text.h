#pragma once

#include <QColor>
#include <QString>

#include "core/colour/decisions.h"

namespace rim::app {

QColor colourOf(Rgb colour);

/// An ink's name as the window shows it: the user's, or what its colour is commonly called ("dark blue").
QString inkName(const Ink& ink);

/// What becomes of an ink, in words.
QString roleName(InkRole role);

/// A decision in words, for the list and for undo: "Merge cream into white". `inks` are those of the moment.
QString decisionName(const InkDecision& decision, const std::vector<Ink>& inks);

}  // namespace rim::app
