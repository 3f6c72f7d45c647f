#include "app/steps/picture/recipe_chooser.h"

#include <QButtonGroup>
#include <QGridLayout>
#include <QImage>
#include <QLabel>
#include <QPixmap>
#include <QToolButton>

#include "app/session.h"

namespace rim::app {
namespace {

constexpr QSize kSmall(104, 74);
constexpr int kColumns = 2;

/// The ink as it would be traced, black on white.
QPixmap pictureOf(const picture::PictureRecipe& recipe) {
  const cv::Mat paper = ~recipe.ink;
  const QImage image(paper.data, paper.cols, paper.rows, static_cast<qsizetype>(paper.step), QImage::Format_Grayscale8);
  return QPixmap::fromImage(image.scaled(kSmall, Qt::KeepAspectRatio, Qt::SmoothTransformation));
}

}  // namespace

QString recipeName(const picture::PictureRecipe& recipe) {
  for (const picture::PreparationStep& step : recipe.steps) {
    if (std::holds_alternative<picture::EvenLight>(step.what)) return RecipeChooser::tr("Light made even");
    if (std::holds_alternative<picture::LocalThreshold>(step.what)) return RecipeChooser::tr("Local threshold");
    if (const auto* lift = std::get_if<picture::LiftShadows>(&step.what))
      return RecipeChooser::tr("Shadows lifted, %1 px").arg(lift->reachPx, 0, 'f', 0);
  }
  return RecipeChooser::tr("Light as it is");
}

RecipeChooser::RecipeChooser(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(0, 0, 0, 0);
  auto* words = new QLabel(tr("What would be traced. Another one can be taken:"));
  words->setWordWrap(true);
  rows->addWidget(words);
  grid_ = new QGridLayout;
  rows->addLayout(grid_);
  buttons_ = new QButtonGroup(this);
  connect(buttons_, &QButtonGroup::idClicked, this, [this](int id) {
    session_.useRecipe(session_.recipes().at(static_cast<std::size_t>(id)));
    show();  // the one in use stays marked when it is clicked again
  });
  hide();
}

void RecipeChooser::show() {
  const std::vector<picture::PictureRecipe>& recipes = session_.recipes();
  setVisible(recipes.size() > 1);
  if (recipes.size() < 2) {
    shown_ = nullptr;
    return;
  }
  if (shown_ != recipes.data()) build();
  shown_ = recipes.data();
  buttons_->setExclusive(false);
  for (std::size_t i = 0; i < recipes.size(); ++i)
    buttons_->button(static_cast<int>(i))->setChecked(recipes[i].steps == session_.job().preparation);
}

void RecipeChooser::build() {
  for (QAbstractButton* button : buttons_->buttons()) delete button;
  int id = 0;
  for (const picture::PictureRecipe& recipe : session_.recipes()) {
    auto* button = new QToolButton;
    button->setObjectName(QStringLiteral("recipe%1").arg(id + 1));
    button->setCheckable(true);
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setIcon(pictureOf(recipe));
    button->setIconSize(kSmall);
    button->setText(recipeName(recipe));
    button->setToolTip(tr("Makes the picture traceable like this; undo brings back what was"));
    button->setAccessibleName(recipeName(recipe));
    button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    buttons_->addButton(button, id);
    grid_->addWidget(button, id / kColumns, id % kColumns);
    ++id;
  }
}

}  // namespace rim::app
