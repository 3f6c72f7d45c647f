#include "app/widgets/busy_line.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>

namespace rim::app {

BusyLine::BusyLine(QWidget* parent)
    : QFrame(parent), label_(new QLabel), bar_(new QProgressBar), delay_(new QTimer(this)) {
  constexpr int kDelayMs = 200;
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(8, 2, 8, 2);
  // Where there is no room the words are cut short: the window must not grow by them.
  constexpr int kLeastPx = 40;
  label_->setMinimumWidth(kLeastPx);
  row->addWidget(label_);
  bar_->setMinimumWidth(kLeastPx);
  bar_->setMaximumWidth(160);
  bar_->setTextVisible(false);
  bar_->setAccessibleName(tr("Progress"));
  row->addWidget(bar_);
  auto* cancel = new QPushButton(tr("Cancel"));
  cancel->setToolTip(tr("Stop this and keep what was there before (Esc)"));
  connect(cancel, &QPushButton::clicked, this, &BusyLine::cancelled);
  row->addWidget(cancel);
  delay_->setSingleShot(true);
  delay_->setInterval(kDelayMs);
  connect(delay_, &QTimer::timeout, this, &QWidget::show);
  hide();
}

void BusyLine::report(const QString& what, double done) {
  if (what.isEmpty()) {
    delay_->stop();
    hide();
    return;
  }
  label_->setText(what);
  label_->setToolTip(what);
  bar_->setRange(0, done < 0 ? 0 : 100);
  if (done >= 0) bar_->setValue(static_cast<int>(done * 100));
  if (isHidden() && !delay_->isActive()) delay_->start();
}

}  // namespace rim::app
