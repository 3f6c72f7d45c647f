#include "app/widgets/panel_scroll.h"

#include <QEvent>
#include <QLayout>
#include <QTimer>

namespace rim::app {

PanelScroll::PanelScroll(QWidget* panel, QWidget* parent) : QScrollArea(parent) {
  setWidgetResizable(true);
  setFrameShape(QFrame::NoFrame);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setWidget(panel);
  panel->installEventFilter(this);
}

void PanelScroll::resizeEvent(QResizeEvent* event) {
  QScrollArea::resizeEvent(event);
  giveHeight();
}

bool PanelScroll::eventFilter(QObject* watched, QEvent* event) {
  const bool handled = QScrollArea::eventFilter(watched, event);
  // After the panel itself has seen it, and what it holds has been laid out.
  if (event->type() == QEvent::LayoutRequest) QTimer::singleShot(0, this, &PanelScroll::giveHeight);
  return handled;
}

void PanelScroll::giveHeight() {
  QLayout* layout = widget()->layout();
  const int width = viewport()->width();
  const int height =
      layout->hasHeightForWidth() ? layout->totalHeightForWidth(width) : layout->totalMinimumSize().height();
  if (widget()->minimumHeight() != height) widget()->setMinimumHeight(height);
}

}  // namespace rim::app
