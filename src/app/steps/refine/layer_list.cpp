#include "app/steps/refine/layer_list.h"

#include <QColorDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <tuple>

#include "app/widgets/counted.h"
#include "app/widgets/fold.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr int kNumber = Qt::UserRole;
enum Column { kName, kCount };

QIcon swatch(const Layer& layer) {
  constexpr int kSide = 14;
  QPixmap pixmap(kSide, kSide);
  pixmap.fill(QColor(layer.red, layer.green, layer.blue));
  return pixmap;
}

/// The steps without those of one kind that are about a layer.
template <class Kind>
std::vector<refine::Step> without(std::vector<refine::Step> steps, const std::string& layer) {
  std::erase_if(steps, [&layer](const refine::Step& step) {
    const auto* own = std::get_if<Kind>(&step);
    return own != nullptr && own->name == layer;
  });
  return steps;
}

}  // namespace

LayerList::LayerList(QWidget* parent) : QWidget(parent) {
  fold_ = new Fold("layersPart", tr("Layers"), false);
  partLayout(this)->addWidget(fold_);
  auto* column = fold_->inside();
  tree_ = new QTreeWidget;
  tree_->setObjectName("layers");
  tree_->setAccessibleName(tr("Layers"));
  tree_->setColumnCount(2);
  tree_->setHeaderHidden(true);
  tree_->setRootIsDecorated(false);
  tree_->header()->setStretchLastSection(false);
  tree_->header()->setSectionResizeMode(kName, QHeaderView::Stretch);
  tree_->header()->setSectionResizeMode(kCount, QHeaderView::ResizeToContents);
  constexpr int kHeight = 104;
  tree_->setFixedHeight(kHeight);
  column->addWidget(tree_);
  auto* row = new QHBoxLayout;
  colour_ = addButton(row, "layerColour", tr("Colour…"), tr("Another colour for the layer that is chosen in the list"));
  here_ = addButton(row, "onLayer", tr("Put here"), tr("Put the outlines that are chosen on the bench on this layer"));
  new_ = addButton(row, "onNewLayer", tr("On a new one"),
                   tr("Put the outlines that are chosen on the bench on a new layer"));
  column->addLayout(row);
  auto* second = new QHBoxLayout;
  lock_ =
      addButton(second, "lockLayer", tr("Lock"), tr("Nothing on the layer is taken hold of, but places snap to it"));
  up_ = addButton(second, "layerUp", tr("Before"), tr("The layer comes earlier in the file"));
  down_ = addButton(second, "layerDown", tr("Behind"), tr("The layer comes later in the file"));
  column->addLayout(second);
  connect(lock_, &QPushButton::clicked, this, &LayerList::lock);
  connect(up_, &QPushButton::clicked, this, [this] { moveBy(-1); });
  connect(down_, &QPushButton::clicked, this, [this] { moveBy(1); });
  connect(tree_, &QTreeWidget::itemChanged, this, [this](const QTreeWidgetItem* item, int changed) {
    if (filling_ || changed != kName) return;
    // The list is made anew by what follows: not while the item is still at it.
    const auto which = static_cast<std::size_t>(item->data(kName, kNumber).toULongLong());
    const bool ticked = item->checkState(kName) == Qt::Checked;
    QMetaObject::invokeMethod(
        this, [this, which, ticked, name = item->text(kName).trimmed()] { follow(which, ticked, name); },
        Qt::QueuedConnection);
  });
  connect(tree_, &QTreeWidget::currentItemChanged, this, [this] { setChosen(chosen_); });
  connect(colour_, &QPushButton::clicked, this, &LayerList::recolour);
  connect(here_, &QPushButton::clicked, this, [this] {
    if (const Layer* layer = current()) putChosen(*layer);
  });
  connect(new_, &QPushButton::clicked, this, &LayerList::putOnNew);
}

void LayerList::show(const Drawing& drawing, const std::vector<refine::Step>& steps) {
  const auto before = std::tuple(layers_, counts_, hidden_, locked_);
  layers_ = drawing.layers;
  steps_ = steps;
  counts_.assign(layers_.size(), 0);
  for (const Outline& outline : drawing.outlines) {
    if (outline.layer < counts_.size()) ++counts_[outline.layer];
  }
  hidden_ = refine::hiddenLayers(steps);
  locked_ = refine::lockedLayers(steps);
  fold_->setSummary(layers_.empty()   ? QString()
                    : hidden_.empty() ? QString::number(layers_.size())
                                      : tr("%1, %2 hidden").arg(layers_.size()).arg(hidden_.size()));
  // A name that is being typed is not taken away.
  if (before != std::tuple(layers_, counts_, hidden_, locked_) || tree_->topLevelItemCount() == 0) fill();
}

void LayerList::fill() {
  filling_ = true;
  const int before = tree_->indexOfTopLevelItem(tree_->currentItem());
  tree_->clear();
  for (std::size_t i = 0; i < layers_.size(); ++i) {
    auto* item = new QTreeWidgetItem(tree_);
    const bool hidden = hidden_.count(layers_[i].name) != 0;
    item->setText(kName, QString::fromStdString(layers_[i].name));
    item->setIcon(kName, swatch(layers_[i]));
    item->setCheckState(kName, hidden ? Qt::Unchecked : Qt::Checked);
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable | Qt::ItemIsEditable);
    const bool locked = locked_.count(layers_[i].name) != 0;
    item->setText(kCount, hidden ? tr("hidden") : locked ? tr("locked") : QString::number(counts_[i]));
    item->setData(kName, kNumber, static_cast<qulonglong>(i));
    item->setToolTip(kName, tr("Unticked it is neither shown nor written; a double click renames it"));
  }
  if (before >= 0 && before < tree_->topLevelItemCount()) tree_->setCurrentItem(tree_->topLevelItem(before));
  tree_->setVisible(!layers_.empty());
  colour_->setVisible(!layers_.empty());
  here_->setVisible(!layers_.empty());
  for (QPushButton* button : {lock_, up_, down_}) button->setVisible(!layers_.empty());
  filling_ = false;
  setChosen(chosen_);
}

void LayerList::setChosen(std::vector<OutlineMark> chosen) {
  chosen_ = std::move(chosen);
  colour_->setEnabled(current() != nullptr);
  here_->setEnabled(current() != nullptr && !chosen_.empty());
  new_->setEnabled(!chosen_.empty());
  const Layer* layer = current();
  const int row = tree_->indexOfTopLevelItem(tree_->currentItem());
  lock_->setEnabled(layer != nullptr);
  lock_->setText(layer != nullptr && locked_.count(layer->name) != 0 ? tr("Unlock") : tr("Lock"));
  up_->setEnabled(layer != nullptr && row > 0);
  down_->setEnabled(layer != nullptr && row + 1 < tree_->topLevelItemCount());
}

const Layer* LayerList::current() const {
  const QTreeWidgetItem* item = tree_->currentItem();
  if (item == nullptr) return nullptr;
  const auto i = static_cast<std::size_t>(item->data(kName, kNumber).toULongLong());
  return i < layers_.size() ? &layers_[i] : nullptr;
}

/// A layer was ticked, or called otherwise.
void LayerList::follow(std::size_t which, bool show, const QString& name) {
  if (which >= layers_.size()) return;
  const Layer layer = layers_[which];
  const QString called = QString::fromStdString(layer.name);
  if (show == (hidden_.count(layer.name) != 0)) {
    if (!show) return add(refine::HideLayer{layer.name}, tr("Hide layer %1").arg(called));
    emit changed(without<refine::HideLayer>(steps_, layer.name), tr("Show layer %1").arg(called));
    return;
  }
  if (name != called) rename(layer, name);
}

void LayerList::rename(const Layer& layer, const QString& name) {
  if (name.isEmpty()) {
    emit refused(tr("A layer needs a name."));
    return fill();
  }
  if (hidden_.count(layer.name) != 0) {
    emit refused(tr("Show the layer before you give it another name."));
    return fill();
  }
  if (locked_.count(layer.name) != 0) {
    emit refused(tr("Unlock the layer before you give it another name."));
    return fill();
  }
  Layer as = layer;
  as.name = name.toStdString();
  add(refine::EditLayer{layer.name, as}, tr("Name layer %1").arg(name));
}

void LayerList::recolour() {
  const Layer* layer = current();
  if (layer == nullptr) return;
  const QColor now(layer->red, layer->green, layer->blue);
  const QColor chosen = QColorDialog::getColor(now, this, tr("Colour of the layer"));
  if (!chosen.isValid() || chosen == now) return;
  add(refine::EditLayer{layer->name, {layer->name, chosen.red(), chosen.green(), chosen.blue()}},
      tr("Colour layer %1").arg(QString::fromStdString(layer->name)));
}

void LayerList::putChosen(const Layer& layer) {
  if (hidden_.count(layer.name) != 0) {
    emit refused(tr("The layer is hidden: show it first."));
    return;
  }
  add(refine::PutOnLayer{chosen_, layer}, tr("Put on layer %1").arg(QString::fromStdString(layer.name)));
}

void LayerList::lock() {
  const Layer* layer = current();
  if (layer == nullptr) return;
  const std::string name = layer->name;
  const QString called = QString::fromStdString(name);
  if (locked_.count(name) == 0) return add(refine::LockLayer{name}, tr("Lock layer %1").arg(called));
  emit changed(without<refine::LockLayer>(steps_, name), tr("Unlock layer %1").arg(called));
}

void LayerList::moveBy(int by) {
  const Layer* layer = current();
  if (layer == nullptr) return;
  const std::string name = layer->name;
  const int place = tree_->indexOfTopLevelItem(tree_->currentItem()) + by;
  tree_->setCurrentItem(tree_->topLevelItem(place));  // it stays the one that is chosen
  add(refine::MoveLayer{name, place}, tr("Move layer %1").arg(QString::fromStdString(name)));
}

std::string LayerList::freeName() const {
  for (int i = 2;; ++i) {
    std::string name = tr("layer %1").arg(i).toStdString();
    const auto same = [&name](const Layer& layer) { return layer.name == name; };
    if (std::none_of(layers_.begin(), layers_.end(), same)) return name;
  }
}

void LayerList::putOnNew() {
  // Hues far apart one after the other: the golden angle.
  constexpr double kGoldenShare = 0.381966;
  const double hue = std::fmod(0.6 + kGoldenShare * static_cast<double>(layers_.size()), 1.0);
  const QColor colour = QColor::fromHsvF(static_cast<float>(hue), 0.85F, 0.7F);
  putChosen({freeName(), colour.red(), colour.green(), colour.blue()});
}

void LayerList::add(const refine::Step& step, const QString& name) {
  std::vector<refine::Step> steps = steps_;
  steps.push_back(step);
  emit changed(steps, name);
}

}  // namespace rim::app
