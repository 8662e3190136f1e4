import { defineRecipe } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { type P, parameters } from './parameters';
import { refuse } from './refuse';
import { onPosts, onRails, places } from './sizes';
import { solid } from './solid';

const hasTab = (p: P) => p.tab;

export const boardTray = defineRecipe({
  id: 'board-tray',
  version: 3,
  family: 'mount',
  title: 'Board tray in a tube',
  purpose: 'Carries a circuit board inside a tube, on two rails or on posts, and comes out again by its tab.',
  guide,
  mates: {
    tube: {
      name: 'Tray in the tube',
      dimension: 'tube',
      parameter: 'outside',
      side: 'outside',
      want: 'slide',
      flexibleWant: 'slide',
    },
    board: {
      name: 'Board between the rails',
      dimension: 'board_width',
      parameter: 'boardSlot',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
    },
    edge: {
      name: 'Board’s edge in its slot',
      dimension: 'board_thickness',
      parameter: 'edgeSlot',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
      active: onRails,
    },
    pilot: {
      name: 'Screw in its post',
      dimension: 'board_screw',
      parameter: 'pilot',
      side: 'inside',
      want: 'insert',
      flexibleWant: 'insert',
      active: onPosts,
    },
  },
  parameters,
  shown: {
    floor: onRails,
    pilot: onPosts,
    postsAcross: onPosts,
    postsAlong: onPosts,
    post: onPosts,
    postHeight: onPosts,
    tabWidth: hasTab,
    tabLength: hasTab,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'the stern light’s board',
    sizes: {
      tube: 48,
      board_width: 30,
      board_thickness: 1.6,
      board_length: 70,
      board_screw: 2.5,
      holes_across: 24,
      holes_along: 56,
    },
    parameters: {
      outside: 47.5,
      boardSlot: 30.4,
      holds: 'rails',
      edgeSlot: 2,
      pilot: 2.1,
      postsAcross: 18,
      postsAlong: 44,
      post: 5,
      postHeight: 3,
      length: 74,
      below: 1,
      rail: 2,
      floor: 10,
      endWall: 2,
      pull: 10,
      tab: true,
      tabWidth: 13,
      tabLength: 16,
      slots: 0,
      slotWidth: 6,
      slotLength: 10,
    },
  },
});
