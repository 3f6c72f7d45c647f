#pragma once

#include <QWidget>

#include "core/picture/recipes.h"

class QButtonGroup;
class QGridLayout;

namespace rim::app {

class Session;

/// What a recipe does to the light, in words.
QString recipeName(const picture::PictureRecipe& recipe);

/// The ways in which the picture may be made traceable, as small pictures of the ink that comes of each: the one that
/// is in use is marked, another is taken by a click. Hidden where there is no choice.
class RecipeChooser : public QWidget {
  Q_OBJECT

 public:
  explicit RecipeChooser(Session& session, QWidget* parent = nullptr);
  void show();

 private:
  void build();

  Session& session_;
  QGridLayout* grid_;
  QButtonGroup* buttons_;
  const void* shown_ = nullptr;  ///< the list that the buttons stand for
};

}  // namespace rim::app
