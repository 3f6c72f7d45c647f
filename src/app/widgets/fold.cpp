#include "app/widgets/fold.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSettings>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/widgets/panel_parts.h"

namespace rim::app {

Fold::Fold(const char* name, const QString& title, bool open, QWidget* parent) : QWidget(parent) {
  setObjectName(name);
  auto* column = partLayout(this);
  heading_ = new QToolButton;
  heading_->setObjectName(QString("%1Heading").arg(name));
  heading_->setProperty("role", "fold");
  heading_->setText(title);
  heading_->setCheckable(true);
  heading_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  heading_->setToolTip(tr("Opens this part of the panel, or folds it away"));
  summary_ = new QLabel;
  summary_->setProperty("role", "quiet");
  auto* row = new QHBoxLayout;
  row->addWidget(heading_);
  row->addStretch(1);
  row->addWidget(summary_);
  column->addLayout(row);
  content_ = new QWidget;
  inside_ = partLayout(content_);
  column->addWidget(content_);
  const QString key = QString("folds/%1").arg(name);
  heading_->setChecked(QSettings().value(key, open).toBool());
  follow(isOpen());
  connect(heading_, &QToolButton::toggled, this, [this, key](bool now) {
    QSettings().setValue(key, now);
    follow(now);
  });
}

void Fold::setSummary(const QString& text) { summary_->setText(text); }

bool Fold::isOpen() const { return heading_->isChecked(); }

void Fold::setOpen(bool open) { heading_->setChecked(open); }

void Fold::follow(bool open) {
  heading_->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
  content_->setVisible(open);
}

}  // namespace rim::app
