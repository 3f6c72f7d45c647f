#pragma once

#include <QByteArray>

class QMimeData;

namespace rim::app {

/// SVG for a clipboard or a drag, in the forms that other programs take. The caller owns it.
QMimeData* svgContent(const QByteArray& svg);

/// The SVG that is on a clipboard; empty when there is none.
QByteArray svgIn(const QMimeData& content);

}  // namespace rim::app
