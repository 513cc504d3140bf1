// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QWidget>

class QGridLayout;
class QLabel;
class QLineEdit;
class QListWidget;

namespace inchpeg::app
{

class ShapeDrawing;
class TestChoice;

/// Which specimen: a shelf of shapes, drawn to scale, and the dimensions of the chosen one.
class SpecimenView : public QWidget
{
    Q_OBJECT
public:
    explicit SpecimenView(PlanPresenter &presenter, QWidget *parent = nullptr);
    void refresh();

protected:
    void changeEvent(QEvent *event) override;

private:
    void fillShelf();
    void createDimensions(QGridLayout *grid);
    void setDimension(double SpecimenShape::*member, const QString &text);

    struct DimensionField {
        double SpecimenShape::*member;
        QLabel *label = nullptr;
        QLineEdit *edit = nullptr;
    };

    PlanPresenter &m_presenter;
    TestChoice *m_test = nullptr;
    QListWidget *m_shelf = nullptr;
    ShapeDrawing *m_drawing = nullptr;
    QLabel *m_words = nullptr;
    std::vector<DimensionField> m_dimensions;
};

} // namespace inchpeg::app
