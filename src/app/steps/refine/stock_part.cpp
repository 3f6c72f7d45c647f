#include "app/steps/refine/stock_part.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "app/widgets/fold.h"
#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr const char* kWidth = "stock/widthMm";
constexpr const char* kHeight = "stock/heightMm";

/// The size that was asked for last.
double lastSize(const char* key, double otherwise) {
  const double size = QSettings().value(key, otherwise).toDouble();
  return size >= job::kLeastStockMm && size <= job::kMostStockMm ? size : otherwise;
}

}  // namespace

StockPart::StockPart(QWidget* parent) : QWidget(parent) {
  fold_ = new Fold("stockPart", tr("Stock"), false);
  partLayout(this)->addWidget(fold_);
  auto* column = fold_->inside();
  has_ = new QCheckBox(tr("Show the sheet that it is cut from"));
  has_->setObjectName("hasStock");
  column->addWidget(has_);
  connect(has_, &QCheckBox::clicked, this, [this](bool on) {
    const job::Stock usual;
    emit wished(on ? std::optional(round(lastSize(kWidth, usual.widthMm), lastSize(kHeight, usual.heightMm)))
                   : std::nullopt);
  });
  rest_ = new QWidget;
  auto* rest = partLayout(rest_);
  auto* grid = new QGridLayout;
  const auto label = [&](const QString& text, LengthField* of, int row, int at) {
    auto* one = new QLabel(text);
    one->setBuddy(of);
    grid->addWidget(one, row, at);
    grid->addWidget(of, row, at + 1);
  };
  width_ = sizeField("stockWidth", &job::Stock::widthMm);
  height_ = sizeField("stockHeight", &job::Stock::heightMm);
  left_ = placeField("stockLeft", &Point::x);
  below_ = placeField("stockBelow", &Point::y);
  label(tr("Width"), width_, 0, 0);
  label(tr("Height"), height_, 0, 2);
  label(tr("Left"), left_, 1, 0);
  label(tr("Bottom"), below_, 1, 2);
  rest->addLayout(grid);
  auto* row = new QHBoxLayout;
  connect(addButton(row, "stockRound", tr("Lay it round them"),
                    tr("The sheet moves so that the outlines lie in its middle")),
          &QPushButton::clicked, this, [this] {
            if (stock_) emit wished(round(stock_->widthMm, stock_->heightMm));
          });
  connect(addButton(row, "centreOnStock", tr("Centre them on it"),
                    tr("The outlines that are chosen, or all, come to the middle of the sheet")),
          &QPushButton::clicked, this, &StockPart::centreWanted);
  rest->addLayout(row);
  column->addWidget(rest_);
}

LengthField* StockPart::field(const char* name, double leastMm, const std::function<void(job::Stock&, double)>& set) {
  auto* one = new LengthField;
  one->setObjectName(name);
  one->setRange(leastMm, job::kMostStockMm);
  connect(one, &LengthField::refused, this, &StockPart::refused);
  connect(one, &LengthField::entered, this, [this, set](double mm) {
    if (!stock_) return;
    job::Stock stock = *stock_;
    set(stock, mm);
    QSettings settings;
    settings.setValue(kWidth, stock.widthMm);
    settings.setValue(kHeight, stock.heightMm);
    emit wished(stock);
  });
  return one;
}

LengthField* StockPart::sizeField(const char* name, double job::Stock::*size) {
  return field(name, job::kLeastStockMm, [size](job::Stock& stock, double mm) { stock.*size = mm; });
}

LengthField* StockPart::placeField(const char* name, double Point::*place) {
  return field(name, -job::kMostStockMm, [place](job::Stock& stock, double mm) { stock.at.*place = mm; });
}

job::Stock StockPart::round(double widthMm, double heightMm) const {
  const Point middle = outlines_.empty() ? Point{} : lerp(outlines_.low, outlines_.high, 0.5);
  return {widthMm, heightMm, middle - Point{widthMm, heightMm} * 0.5};
}

void StockPart::show(const std::optional<job::Stock>& stock, const Box& outlines, Unit unit) {
  stock_ = stock;
  outlines_ = outlines;
  has_->setChecked(stock.has_value());
  has_->setEnabled(!outlines.empty());
  rest_->setVisible(stock.has_value());
  fold_->setSummary(stock ? tr("%1 × %2").arg(lengthText(stock->widthMm, unit), lengthWithUnit(stock->heightMm, unit))
                          : QString());
  if (!stock) return;
  width_->show(stock->widthMm, unit);
  height_->show(stock->heightMm, unit);
  left_->show(stock->at.x, unit);
  below_->show(stock->at.y, unit);
}

}  // namespace rim::app
