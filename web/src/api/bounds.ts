/* What the API bounds in each body that it takes. Made by ./dev api: do not edit. */
export const BOUNDS = {
 "AnswerAsk": {
  "outcome": {
   "minLength": 0,
   "maxLength": 40
  },
  "question": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "ArriveIn": {
  "place": {
   "maxLength": 60
  }
 },
 "AskIn": {
  "version": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "BringOwnBackAsk": {
  "part": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "CancelIn": {
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "ChecksIn": {
  "unit": {
   "maxLength": 60
  }
 },
 "ClearHoldAsk": {
  "code": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "ConsentAsk": {
  "amount_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "how": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "DonorIn": {
  "bought_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "origin": {
   "maxLength": 120
  },
  "place": {
   "maxLength": 60
  },
  "variant": {
   "minLength": 1,
   "maxLength": 40
  }
 },
 "DonorScrapIn": {
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "GoBackAsk": {
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "HarvestIn": {
  "place": {
   "maxLength": 60
  }
 },
 "IntakeIn": {
  "complaint": {
   "maxLength": 2000
  },
  "owner_contact": {
   "maxLength": 120
  },
  "owner_name": {
   "maxLength": 120
  },
  "sheet_id": {
   "minimum": 1,
   "maximum": 2000000000
  },
  "supply": {
   "maxLength": 120
  }
 },
 "LiftHoldAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "code": {
   "minLength": 0,
   "maxLength": 40
  },
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "MarkCheckAsk": {
  "check": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "MarkStepAsk": {
  "fuse": {
   "minLength": 0,
   "maxLength": 120
  },
  "step": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "MinimumIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "count": {
   "minimum": 0,
   "maximum": 10000
  }
 },
 "NotePartAsk": {
  "item": {
   "minLength": 0,
   "maxLength": 120
  },
  "price_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  },
  "wait_days": {
   "minimum": 0,
   "maximum": 365
  }
 },
 "OrderIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "name": {
   "maxLength": 120
  },
  "pack_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "pack_size": {
   "minimum": 1,
   "maximum": 10000
  },
  "packs": {
   "minimum": 1,
   "maximum": 10000
  },
  "supplier": {
   "minLength": 1,
   "maxLength": 80
  }
 },
 "ProposeAsk": {
  "end": {
   "minLength": 0,
   "maxLength": 40
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "PutBackAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "ReceiveIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "count": {
   "minimum": 1,
   "maximum": 10000
  },
  "lot": {
   "maxLength": 40
  },
  "name": {
   "maxLength": 120
  },
  "pack_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "pack_size": {
   "minimum": 1,
   "maximum": 10000
  },
  "place": {
   "maxLength": 60
  }
 },
 "ReleaseOwnAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "part": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "RemarkAsk": {
  "text": {
   "minLength": 1,
   "maxLength": 2000
  }
 },
 "RestoreAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "SayIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "reason": {
   "maxLength": 120
  },
  "said": {
   "maxLength": 120
  },
  "variant": {
   "minLength": 1,
   "maxLength": 40
  }
 },
 "ScrapIn": {
  "count": {
   "minimum": 1,
   "maximum": 10000
  },
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "SetDepthAsk": {
  "depth": {
   "minimum": 0,
   "maximum": 3
  }
 },
 "SheetIn": {
  "based_on": {
   "minimum": 0,
   "maximum": 2000000000
  },
  "why": {
   "maxLength": 120
  }
 },
 "SignIn": {
  "password": {
   "maxLength": 120
  },
  "username": {
   "maxLength": 120
  }
 },
 "StrikeAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  },
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "TakeOutOwnAsk": {
  "level": {
   "minLength": 0,
   "maxLength": 40
  },
  "place": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "TakePartAsk": {
  "part": {
   "minLength": 0,
   "maxLength": 120
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "TickAsk": {
  "plan": {
   "minLength": 0,
   "maxLength": 40
  },
  "step": {
   "minLength": 0,
   "maxLength": 40
  },
  "text": {
   "minLength": 0,
   "maxLength": 2000
  }
 },
 "TrialAsk": {
  "clean_passes": {
   "minimum": 0,
   "maximum": 1000
  }
 }
} as const
