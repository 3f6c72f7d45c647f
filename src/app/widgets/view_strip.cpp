#include "app/widgets/view_strip.h"

#include <QAction>
#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QSlider>
#include <QToolButton>

namespace rim::app {

ViewStrip::ViewStrip(const QList<QAction*>& compare, const QList<QAction*>& view, QWidget* parent) : QFrame(parent) {
  setObjectName("viewStrip");
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(12, 4, 12, 4);
  row->setSpacing(3);
  for (QAction* action : compare) addButton(row, action);
  auto* peekButton = new QToolButton;
  peekButton->setText(tr("Peek"));
  peekButton->setObjectName("peek");
  peekButton->setToolTip(tr("Hold to see the picture alone (hold P)"));
  connect(peekButton, &QToolButton::pressed, this, [this] { emit peek(true); });
  connect(peekButton, &QToolButton::released, this, [this] { emit peek(false); });
  row->addWidget(peekButton);
  row->addSpacing(12);
  auto* label = new QLabel(tr("Pict&ure"));
  strength_ = new QSlider(Qt::Horizontal);
  strength_->setObjectName("strength");
  strength_->setRange(0, 100);
  strength_->setPageStep(10);
  strength_->setFixedWidth(110);
  strength_->setAccessibleName(tr("Picture strength"));
  strength_->setToolTip(tr("How strongly the picture shows under the outlines (weaker: ,  stronger: .)"));
  label->setBuddy(strength_);
  label->setToolTip(strength_->toolTip());
  row->addWidget(label);
  row->addWidget(strength_);
  connect(strength_, &QSlider::valueChanged, this, [this](int percent) { emit strengthChanged(percent / 100.0); });
  row->addStretch(1);
  for (QAction* action : view) addButton(row, action);
  zoom_ = new QLabel;
  zoom_->setProperty("role", "quiet");
  zoom_->setMinimumWidth(52);
  zoom_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  zoom_->setToolTip(tr("Screen pixels per picture pixel"));
  row->addWidget(zoom_);
}

void ViewStrip::addButton(QHBoxLayout* row, QAction* action) {
  auto* button = new QToolButton;
  button->setDefaultAction(action);
  button->setToolButtonStyle(Qt::ToolButtonTextOnly);
  row->addWidget(button);
}

void ViewStrip::setStrength(double strength) {
  const QSignalBlocker quiet(strength_);
  strength_->setValue(static_cast<int>(strength * 100 + 0.5));
}

void ViewStrip::setZoom(double percent) { zoom_->setText(tr("%1 %").arg(percent, 0, 'f', percent < 10 ? 1 : 0)); }

}  // namespace rim::app
