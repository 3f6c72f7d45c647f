#include "app/widgets/svg_mime.h"

#include <QMimeData>

namespace rim::app {
namespace {

constexpr char kSvgType[] = "image/svg+xml";

}  // namespace

QMimeData* svgContent(const QByteArray& svg) {
  auto* content = new QMimeData;
  content->setData(kSvgType, svg);
  content->setText(QString::fromUtf8(svg));
  return content;
}

QByteArray svgIn(const QMimeData& content) {
  const QByteArray svg = content.data(kSvgType);
  if (!svg.isEmpty()) return svg;
  return content.text().contains("<svg") ? content.text().toUtf8() : QByteArray();
}

}  // namespace rim::app
