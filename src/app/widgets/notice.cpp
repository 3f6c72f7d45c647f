#include "app/widgets/notice.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QTimer>

namespace rim::app {

Notice::Notice(QWidget* parent) : QFrame(parent), label_(new QLabel), timer_(new QTimer(this)) {
  constexpr int kGoodNewsMs = 8000;
  setObjectName("notice");
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(14, 7, 8, 7);
  label_->setWordWrap(true);
  label_->setTextFormat(Qt::PlainText);
  row->addWidget(label_, 1);
  auto* dismiss = new QPushButton(tr("Dismiss"));
  connect(dismiss, &QPushButton::clicked, this, &QWidget::hide);
  row->addWidget(dismiss);
  timer_->setSingleShot(true);
  timer_->setInterval(kGoodNewsMs);
  connect(timer_, &QTimer::timeout, this, &QWidget::hide);
  hide();
}

void Notice::tell(const QString& sentence) {
  put(sentence, false);
  timer_->start();
}

void Notice::warn(const QString& sentence) {
  put(sentence, true);
  timer_->stop();
}

QString Notice::sentence() const { return isHidden() ? QString() : label_->text(); }

void Notice::put(const QString& sentence, bool trouble) {
  label_->setText(sentence);
  setAccessibleName(sentence);
  setProperty("trouble", trouble);
  style()->unpolish(this);
  style()->polish(this);
  for (QWidget* child : findChildren<QWidget*>()) style()->polish(child);
  show();
}

}  // namespace rim::app
