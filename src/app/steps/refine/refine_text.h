#pragma once

#include <QString>
#include <vector>

#include "core/refine/step.h"

namespace rim::app {

/// Words of the Refine step in the language of the window.
QString refineText(const char* source);

/// The name of a step of the Refine list: "Offset", "True up: circles".
QString refineName(const refine::Step& step);

/// "Circles", "Nearly level or upright".
QString trueUpText(refine::TrueUpKind kind);

/// A number of a step that can be typed, mm unless `unit` says otherwise.
struct RefineNumber {
  QString name;
  double value = 0;
  double low = 0;
  double high = 0;
  bool length = true;  ///< in mm; else a plain number
  QString unit;        ///< of a plain number
};
std::vector<RefineNumber> refineNumbers(const refine::Step& step);

/// The step with one of its numbers changed.
refine::Step withRefineNumber(refine::Step step, std::size_t which, double value);

/// A choice of a step, such as how corners are joined; empty when it has none.
struct RefineChoice {
  QString name;
  QStringList words;
  int chosen = 0;
};
RefineChoice refineChoice(const refine::Step& step);
refine::Step withRefineChoice(refine::Step step, int chosen);

/// The steps that can be added, with useful first numbers for a drawing with this box (mm).
std::vector<refine::Step> refineSteps(const Box& box);

}  // namespace rim::app
