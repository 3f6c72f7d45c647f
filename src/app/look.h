#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>

#include "app/preferences.h"

class QApplication;

namespace rim::app {

/// The colours of the window and of what lies on the bench. Borders, holes and open outlines also
/// differ by their stroke pattern; the three hues stay apart for all common kinds of colour
/// blindness (after M. Okabe and K. Ito, "Color Universal Design", 2008: bluish green, orange, purple).
struct Look {
  bool dark = false;
  QColor window, panel, raised, line, text, quiet, accent, onAccent, good, warning;
  QColor bench, sheet, sheetEdge;
  QColor border, hole, open, fill, node;
};

/// The look that is in use now.
const Look& look();

/// Loads the fonts that ship with the application and dresses it. To be called once at the start
/// and again when the appearance is changed.
void applyLook(QApplication& application, Appearance appearance);

/// The window's font in other sizes: `step` points larger (or smaller), `weight` of QFont.
QFont fontLike(int step, QFont::Weight weight = QFont::Normal);

}  // namespace rim::app
