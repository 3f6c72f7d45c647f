#pragma once

#include <QColor>
#include <QString>

#include "core/colour/decisions.h"

namespace rim::app {

QColor colourOf(colour::Rgb colour);

/// An ink's name as the window shows it: the user's, or what its colour is commonly called ("dark blue").
QString inkName(const colour::Ink& ink);

/// What becomes of an ink, in words.
QString roleName(colour::InkRole role);

/// A decision in words, for the list and for undo: "Merge cream into white". `inks` are those of the moment.
QString decisionName(const colour::InkDecision& decision, const std::vector<colour::Ink>& inks);

}  // namespace rim::app
